import type { Db } from '@/store/db';

type Days = { readonly here: string | null; readonly away: string | null; readonly missed: string | null };

const first = (days: readonly string[]): string | null => [...days].sort()[0] ?? null;

/** When goods of each order are to come, line by line in plain code: what the application keeps with the order, told once more. */
export async function dueDaysOf(db: Db): Promise<Map<number, Days>> {
  const own = new Set((await db('deliveryPlace').where({ kind: 'own' }).select('id')).map((p) => p.id));
  const lines = await db('orderLine').select();
  const splits = await db('split').select('lineId', 'jobId', 'needId');
  const needed = new Map((await db('need').select('id', 'neededOn')).map((n) => [n.id, n.neededOn]));
  const told = new Map<number, Days>();
  for (const order of await db('purchaseOrder').select()) {
    const here: string[] = [];
    const away: string[] = [];
    const missed: string[] = [];
    const atSupplier = ['sent', 'confirmed', 'partIn'].includes(order.state);
    for (const line of lines.filter((l) => l.orderId === order.id && atSupplier)) {
      if (line.closedShort !== null || line.invoicesEnded !== null) continue;
      const goods = line.kind === 'goods';
      const left = line.quantity - line.givenUp - (goods ? line.received + line.held : line.invoiced);
      if (left <= 0) continue;
      const of = splits.filter((s) => s.lineId === line.id);
      const stays = own.has(line.placeId ?? order.placeId) || of.some((s) => s.jobId === null);
      if (goods) (stays ? here : away).push(line.promisedOn ?? line.wantedOn ?? order.wantedOn ?? '9999');
      for (const { needId } of of) {
        const day = needId === null ? null : needed.get(needId);
        if (line.promisedOn !== null && day && line.promisedOn > day) missed.push(day);
      }
    }
    told.set(order.id, { here: first(here), away: first(away), missed: first(missed) });
  }
  return told;
}
