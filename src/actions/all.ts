import type { Action } from './action';
import * as every from './every';

type Any = Action<never, unknown>;

const isAction = (thing: unknown): thing is Any => typeof thing === 'function' && 'input' in thing;

/** Everything that people do, by its name. */
export const ACTIONS: ReadonlyMap<string, Any> = new Map(
  Object.values<unknown>(every)
    .filter(isAction)
    .map((a) => [a.name, a]),
);
