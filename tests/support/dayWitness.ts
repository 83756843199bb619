import { nothingCame, none, stagesOf, storing, UNSENT, type Came, type Line, type Stages } from './deliveryWitness';
import { lineNet, lostOf, num, type Row } from './plainSums';
import { newStock, noneHeld, type Held, type StockMemory } from './stockWitness';

export type Told = {
  /** By line of the tab. */
  readonly lines: Map<number, { account: string; stages: Stages }[]>;
  /** By job and cost code, “-/-” for stores. */
  readonly accounts: Map<string, Stages>;
  /** What is left to buy of each need. */
  readonly open: Map<number, number>;
  readonly orders: Map<number, { net: number; gross: number }>;
  /** Budget by job and cost code: what won quotes cost us in bought lines and allowances. */
  readonly budgets: Map<string, number>;
  /** Places of the lines of each quote, in order. */
  readonly places: Map<number, number[]>;
  /** What keeps work from starting, by need. */
  readonly missing: Map<number, number>;
  /** Stock by item, place and owner, and what of it or of a part of an order is put by. */
  readonly piles: Map<string, { readonly q: number; readonly v: number }>;
  readonly claimed: Map<string, number>;
  /** All that the figures were worked out of, for when something is dated back before it. */
  scene?: Scene;
};

export const place = (job: unknown, code: unknown): string => `${job ?? '-'}/${job === null ? '-' : (code ?? '-')}`;

export type Beside = { readonly job: unknown; readonly code: unknown; readonly value: number };

/**
 * What a charge was to cost each job when its order was sent, and where an invoice's cost beside the order's lines went when
 * it was matched; needs that are cut later do not move either.
 */
export type Memory = {
  readonly charges: Map<number, { readonly value: number; readonly stamp: string }>;
  readonly beside: Map<number, readonly Beside[]>;
  /** What each part of a charge bore of a line of an invoice. */
  readonly charged: Map<number, readonly number[]>;
  readonly stock: StockMemory;
  /** What each receipt brought of parts of orders, or took away, when it was written. */
  readonly receipts: Map<number, Brought>;
};
export const newMemory = (): Memory => ({
  charges: new Map(),
  beside: new Map(),
  charged: new Map(),
  stock: newStock(),
  receipts: new Map(),
});

/** What a receipt brought of each part of an order, and gave up of it. */
export type Brought = {
  readonly day: string;
  readonly parts: readonly { readonly id: number; readonly received: number; readonly givenUp: number }[];
};

/** All that the figures of a day were worked out of. */
export type Scene = {
  readonly lines: Map<number, Line>;
  readonly state: Map<number, Came>;
  readonly needs: readonly Row[];
  readonly suppliers: Map<unknown, Row>;
  readonly taxOf: (id: unknown) => Row;
  readonly currency: string;
  readonly held: Map<number, Held>;
  readonly told: Told;
  /** What stood beside all lines. */
  readonly beside: Map<string, Stages>;
  /** The receipts that were written by then. */
  readonly known: ReadonlySet<number>;
};

/** What came and was given up between two states. */
export const differing = (before: Map<number, Came>, after: Map<number, Came>): Brought['parts'] =>
  [...after].flatMap(([id, is]) => {
    const was = before.get(id) ?? nothingCame();
    const [received, givenUp] = [is.received - was.received, is.givenUp - was.givenUp];
    return received === 0 && givenUp === 0 ? [] : [{ id, received, givenUp }];
  });

/**
 * How the accounts stood at the end of a day, now that more is known of it: what was written later and is dated by then had
 * happened. A part that an order did not have yet had nothing of it, and one that something came of was not called off.
 */
export function toldOn(day: string, scene: Scene, { receipts }: Memory): Map<string, Stages> {
  const state = structuredClone(scene.state);
  for (const [id, { day: on, parts }] of receipts)
    if (!scene.known.has(id) && on <= day)
      for (const part of parts) {
        const came = state.get(part.id) ?? nothingCame();
        state.set(part.id, {
          ...came,
          received: came.received + part.received,
          givenUp: came.givenUp + part.givenUp,
        });
      }
  const lines = new Map(
    [...scene.lines].map(([id, line]) => {
      const came = line.state === 'cancelled' && line.parts.some((p) => (state.get(p.id)?.received ?? 0) > 0);
      return [id, came ? { ...line, state: 'sent', closed: true } : line];
    }),
  );
  const told = { lines: new Map(scene.told.lines), accounts: structuredClone(scene.beside) };
  standParts(lines, (id) => state.get(id) ?? nothingCame(), told);
  plan({ ...scene, lines, state }, { ...told, open: new Map(), missing: new Map() });
  addUp(told);
  return told.accounts;
}

/** Every line, added to the account that it stands on. */
export function addUp({ lines, accounts }: Pick<Told, 'lines' | 'accounts'>): void {
  for (const { account, stages } of [...lines.values()].flat()) {
    const sum = accounts.get(account) ?? none();
    for (const s of Object.keys(sum) as (keyof Stages)[]) sum[s] += stages[s];
    accounts.set(account, sum);
  }
}

/** Where parts of orders stand, by what came of them. */
export function standParts(lines: Map<number, Line>, at: (part: number) => Came, told: Pick<Told, 'lines'>): void {
  for (const line of lines.values())
    for (const p of line.parts)
      told.lines.set(p.id, [
        { account: place(p.job, p.code), stages: storing(p, stagesOf(line, p, at(p.id)), at(p.id)) },
      ]);
}

/** What needs plan and lack. */
export function plan(
  { needs, lines, state, suppliers, taxOf, currency, held }: Omit<Scene, 'told' | 'beside' | 'known'>,
  told: Pick<Told, 'lines' | 'open' | 'missing'>,
): void {
  for (const need of needs) {
    const stores = held.get(num(need.id)) ?? noneHeld();
    const came = [...lines.values()].flatMap((l) =>
      l.parts.filter((p) => p.need === need.id && l.state !== 'cancelled'),
    );
    const arrived = came.reduce((sum, p) => sum + (state.get(p.id)?.received ?? 0), 0);
    // What its job had over from other lines and gave to it is more than its own orders and transfers brought.
    const given = stores.issued + stores.moved + Math.max(0, stores.own - Math.max(0, arrived + stores.moved));
    let covered = stores.reserved + given;
    let there = stores.inStores + given;
    for (const line of lines.values())
      for (const p of line.parts) {
        if (p.need !== need.id || line.state === 'cancelled') continue;
        const c = state.get(p.id) ?? nothingCame();
        there += c.received;
        covered +=
          (line.closed || line.ended) && !UNSENT.includes(line.state)
            ? Math.max(c.received, c.invoiced + c.claimed - c.givenUp)
            : Math.max(p.quantity - c.givenUp, c.received);
      }
    const open = Math.max(0, num(need.quantity) - covered);
    told.open.set(num(need.id), open);
    told.missing.set(num(need.id), need.kind === 'service' ? 0 : Math.max(0, num(need.quantity) - there));
    const net = lineNet(open, need.price, need.priceQuantity, currency);
    const supplier = suppliers.get(need.supplierId);
    const tax = supplier === undefined ? undefined : taxOf(supplier.taxCodeId);
    const lost = tax === undefined ? 0 : lostOf(net, tax);
    told.lines.set(num(need.id), [
      { account: place(need.jobId, need.costCodeId), stages: { ...none(), planned: net + lost + stores.cost } },
    ]);
  }
}
