/** How far something long has come, in memory that two threads share: what is done, and of how much. */
export type HowFar = Int32Array;

type Held = typeof globalThis & { kettleProgress?: Map<string, HowFar> };

// Next.js loads this file more than once in a process; what is under way is there once.
const underWay = () => ((globalThis as Held).kettleProgress ??= new Map());

/** Lets others ask how far some work has come, under a name of its own, as long as it lasts. */
export async function withProgress<T>(name: string, work: (far: HowFar) => Promise<T>): Promise<T> {
  const far = new Int32Array(new SharedArrayBuffer(8));
  underWay().set(name, far);
  try {
    return await work(far);
  } finally {
    underWay().delete(name);
  }
}

/** @returns undefined when nothing of this name is under way */
export function howFar(name: string): { done: number; of: number } | undefined {
  const [done, of] = underWay().get(name) ?? [];
  return of === undefined || done === undefined ? undefined : { done, of };
}
