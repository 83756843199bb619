/** More waits already than may wait. */
export class TooMany extends Error {}

/**
 * Lets work have its turn: some at a time, the rest in the order in which it came.
 *
 * @param most - how many go on at once
 * @param mostWaiting - how many may wait beside them
 * @returns what runs a piece of work in its turn, and gives its outcome; it rejects with TooMany when it may not wait
 * @example const inTurn = turns(1, 60); await inTurn(() => hash(password));
 */
export function turns(most: number, mostWaiting: number): <T>(work: () => Promise<T>) => Promise<T> {
  const waiting: (() => void)[] = [];
  let running = 0;
  return async (work) => {
    if (running >= most) {
      if (waiting.length >= mostWaiting) throw new TooMany();
      await new Promise<void>((myTurn) => waiting.push(myTurn));
    } else running += 1;
    try {
      return await work();
    } finally {
      // The turn is handed on, so that nobody who comes meanwhile slips in between.
      const next = waiting.shift();
      if (next === undefined) running -= 1;
      else next();
    }
  };
}
