import { FREE_TRIES, holds, secondsToWait } from './signingIn';

const at = (seconds: number) => new Date(Date.UTC(2026, 5, 1, 10, 0, seconds)).toISOString();

describe('the wait before the next try', () => {
  it.each([
    [0, 0],
    [4, 0],
    [5, 15],
    [6, 30],
    [7, 60],
    [10, 480],
    [11, 900],
    [40, 900],
  ])('after %d failures is %d s', (count, seconds) =>
    expect(secondsToWait({ count, last: at(0) }, FREE_TRIES.together, at(0))).toBe(seconds),
  );

  it('runs from the last failure, and ends', () => {
    const failed = { count: 6, last: at(0) };
    expect([0, 10, 29, 30, 31].map((s) => secondsToWait(failed, 5, at(s)))).toEqual([30, 20, 1, 0, 0]);
    expect(secondsToWait({ count: 9, last: null }, 5, at(0))).toBe(0);
  });
});

describe('a sign-in', () => {
  const hours = (n: number) => at(n * 3600);
  it.each([
    ['at once', 0, 0, 0, true],
    ['a day idle', 0, 0, 24, true],
    ['longer idle', 0, 0, 24.1, false],
    ['two weeks, used all the while', 0, 335, 336, true],
    ['longer, used all the while', 0, 336, 336.1, false],
  ])('%s', (_, begun, seen, now, expected) =>
    expect(holds({ begunAt: hours(begun), seenAt: hours(seen) }, hours(now))).toBe(expected),
  );
});
