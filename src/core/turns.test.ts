import { TooMany, turns } from './turns';

/** Work that ends when it is told to, and writes down that it began. */
function pieces(inTurn: ReturnType<typeof turns>, n: number) {
  const begun: number[] = [];
  const ends: (() => void)[] = [];
  const all = Array.from({ length: n }, (_, k) =>
    inTurn(() => {
      begun.push(k);
      return new Promise<number>(
        (done, fail) => (ends[k] = () => (k % 2 === 0 ? done(k) : fail(new Error(String(k))))),
      );
    }).catch((e: Error) => (e instanceof TooMany ? 'too many' : `failed ${e.message}`)),
  );
  return { begun, ends, all };
}
const settle = () => new Promise((done) => setTimeout(done, 0));

describe('turns', () => {
  it('let so many go on at once, and the others in their order, whether they end well or not', async () => {
    const { begun, ends, all } = pieces(turns(2, 10), 5);
    await settle();
    expect(begun).toEqual([0, 1]);
    ends[1]?.();
    await settle();
    expect(begun).toEqual([0, 1, 2]);
    for (const k of [0, 2, 3, 4]) {
      ends[k]?.();
      await settle();
    }
    expect(await Promise.all(all)).toEqual([0, 'failed 1', 2, 'failed 3', 4]);
  });

  it('send away who may not wait, and have room again once something ended', async () => {
    const inTurn = turns(1, 2);
    const { ends, all } = pieces(inTurn, 5);
    await settle();
    for (const k of [0, 1, 2]) {
      ends[k]?.();
      await settle();
    }
    expect(await Promise.all(all)).toEqual([0, 'failed 1', 2, 'too many', 'too many']);
    expect(await inTurn(async () => 'again')).toBe('again');
  });
});
