import { minor } from '../money/money';
import { waysOut } from './ways';

const room = (costCodeId: number, headroom: number) => ({ costCodeId, headroom: minor(headroom) });

describe('ways out of a budget that is passed', () => {
  it('are none where it is not', () => {
    expect(waysOut(1, [room(1, 0), room(2, 50)], minor(10))).toBeUndefined();
    expect(waysOut(3, [room(1, 0)], minor(10))).toBeUndefined();
  });

  it('are from the code with the most room and from what is held back, as far as each goes', () => {
    const rooms = [room(1, -100), room(2, 30), room(3, 80), room(4, -5)];
    expect(waysOut(1, rooms, minor(40))).toEqual({ over: 100, from: room(3, 80), contingency: 40 });
    expect(waysOut(4, rooms, minor(40))).toEqual({ over: 5, from: room(3, 5), contingency: 5 });
    expect(waysOut(1, [room(1, -1)], minor(0))).toEqual({ over: 1, from: null, contingency: 0 });
  });
});
