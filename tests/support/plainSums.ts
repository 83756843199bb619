import Big from 'big.js';

/** The witness's own arithmetic: with big.js, and by handing out one unit after the other. Nothing of the application. */

Big.DP = 40;
Big.RM = Big.roundHalfUp;

export type Row = Record<string, never> & Record<string, unknown>;

export const num = (v: unknown): number => Number(v);
export const whole = (b: Big): number => Number(b.round(0, Big.roundHalfUp).toString()) + 0;
const DECIMALS: Record<string, number> = { GBP: 2, EUR: 2, JPY: 0, KWD: 3 };
const places = (currency: unknown): number => DECIMALS[String(currency)] ?? 2;

/** Hands a whole out by exact shares: each its floor, then one unit after the other to whoever lacks most. */
function handOut(total: number, shares: readonly Big[]): number[] {
  const floors = shares.map((s) => {
    const cut = s.round(0, Big.roundDown);
    return Number((cut.gt(s) ? cut.minus(1) : cut).toString());
  });
  const lacking = shares.map((s, k) => ({ k, lacks: s.minus(floors[k] ?? 0) }));
  lacking.sort((a, b) => b.lacks.cmp(a.lacks) || a.k - b.k);
  const left = total - floors.reduce((a, b) => a + b, 0);
  for (let n = 0; n < Math.abs(left); n += 1) {
    const turn = left > 0 ? n % lacking.length : lacking.length - 1 - (n % lacking.length);
    const at = lacking[turn]?.k ?? 0;
    floors[at] = (floors[at] ?? 0) + Math.sign(left);
  }
  return floors;
}

/** Hands a whole out by weights; a negative whole like its positive. */
export function byWeight(total: number, weights: readonly number[]): number[] {
  const sum = weights.reduce((a, b) => a + b, 0);
  const by = sum === 0 ? weights.map(() => 1) : weights;
  const all = by.reduce((a, b) => a + b, 0);
  const size = Math.abs(total);
  const exact = by.map((w) => new Big(size).times(w).div(all));
  const parts = exact.map((e) => Math.floor(Number(e.round(0, Big.roundDown).toString())));
  const rests = by.map((w, k) => BigInt(size) * BigInt(w) - BigInt(parts[k] ?? 0) * BigInt(all));
  for (let left = size - parts.reduce((a, b) => a + b, 0); left > 0; left -= 1) {
    let best = 0;
    rests.forEach((r, k) => (r > (rests[best] as bigint) ? (best = k) : undefined));
    parts[best] = (parts[best] ?? 0) + 1;
    rests[best] = -1n;
  }
  return parts.map((p) => (total < 0 && p !== 0 ? -p : p));
}

export const lineNet = (quantity: unknown, price: unknown, per: unknown, currency: unknown): number =>
  price === null
    ? 0
    : whole(
        new Big(num(quantity))
          .times(num(price))
          .div(num(per))
          .div(1e8)
          .times(new Big(10).pow(places(currency))),
      );

export const exchange = (amount: number, rate: unknown, from: unknown, to: unknown): number =>
  whole(new Big(amount).times(String(rate)).times(new Big(10).pow(places(to) - places(from))));

/** What of the tax on one net amount cannot be recovered. */
export const lostOf = (net: number, tax: Row): number =>
  whole(new Big(whole(new Big(net).times(num(tax.rate)).div(10_000))).times(10_000 - num(tax.recoverable)).div(10_000));

/** Net amounts with the tax that cannot be recovered, in the document's currency. */
export function withTax(lines: readonly { net: number; tax: Row }[]): number[] {
  const costs = lines.map((l) => l.net);
  const groups = new Set(lines.map((l) => `${l.tax.category} ${l.tax.rate}`));
  for (const group of groups) {
    const own = lines.map((l, k) => ({ ...l, k })).filter((l) => `${l.tax.category} ${l.tax.rate}` === group);
    const rate = new Big(num(own[0]?.tax.rate)).div(10_000);
    const total = whole(rate.times(own.reduce((a, l) => a + l.net, 0)));
    const taxes = handOut(
      total,
      own.map((l) => rate.times(l.net)),
    );
    for (const code of new Set(own.map((l) => l.tax.id))) {
      const mine = own.flatMap((l, j) => (l.tax.id === code ? [{ k: l.k, tax: taxes[j] ?? 0, of: l.tax }] : []));
      const lost = new Big(10_000 - num(mine[0]?.of.recoverable)).div(10_000);
      const sum = whole(lost.times(mine.reduce((a, m) => a + m.tax, 0)));
      const parts = handOut(
        sum,
        mine.map((m) => lost.times(m.tax)),
      );
      mine.forEach((m, j) => (costs[m.k] = (costs[m.k] ?? 0) + (parts[j] ?? 0)));
    }
  }
  return costs;
}

export const grossOf = (lines: readonly { net: number; tax: Row }[]): number => {
  const groups = new Map<string, { rate: number; base: number }>();
  for (const l of lines) {
    const key = `${l.tax.category} ${l.tax.rate}`;
    groups.set(key, { rate: num(l.tax.rate), base: (groups.get(key)?.base ?? 0) + l.net });
  }
  const net = lines.reduce((a, l) => a + l.net, 0);
  return net + [...groups.values()].reduce((a, g) => a + whole(new Big(g.base).times(g.rate).div(10_000)), 0);
};

/** Money that follows other money: by job and code, in proportion to value. */
export function follow(amount: number, over: readonly { job: unknown; code: unknown; value: number }[], code: unknown) {
  const targets: { job: unknown; code: unknown; value: number }[] = [];
  for (const o of over) {
    const to = { job: o.job, code: o.job === null ? null : (code ?? o.code) };
    const known = targets.find((t) => t.job === to.job && t.code === to.code);
    if (known === undefined) targets.push({ ...to, value: o.value });
    else known.value += o.value;
  }
  const weights = targets.map((t) => Math.max(t.value, 0));
  const parts = targets.length === 0 ? [] : byWeight(amount, weights);
  return targets.map((t, k) => ({ job: t.job, code: t.code, value: parts[k] ?? 0 }));
}
