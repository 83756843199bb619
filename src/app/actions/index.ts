import type { Outcome, Setting } from '@/actions/action';
import type * as every from '@/actions/every';
import type { Act } from '@/ui/acting/useAct';
import { perform } from './server';

export { chaseOrder, importQuoteFile, markSentByHand, sendOrder } from './server';

type Every = typeof every;
type Asked<A> = A extends {
  readonly internal: boolean;
  (setting: Setting, input: infer I): Promise<Outcome<infer T>>;
}
  ? Act<I, T>
  : never;
type Acts = { readonly [K in keyof Every as Asked<Every[K]> extends never ? never : K]: Asked<Every[K]> };

const asked = new Map<string, unknown>();

/** What people do, as the browser asks the server for it: each action by its name. One of them is the same each time. */
export const acts = new Proxy({} as Acts, {
  get: (_, action: string) => {
    if (!asked.has(action)) asked.set(action, (input: unknown) => perform({ action, input }));
    return asked.get(action);
  },
});
