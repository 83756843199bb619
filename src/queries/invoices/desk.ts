import { WAITING } from '@/core/invoices/states';
import { formatMoney } from '@/core/money/money';
import type { Db } from '@/store/db';
import { listed, rowsOf } from '@/store/rows';
import type { Invoice } from '@/store/tables';
import { SHOWN, type Group, type Waiting } from '../frame/waiting';
import { countOf } from '../sql';
import { differenceOf } from './difference';

export async function toMatch(db: Db): Promise<Group> {
  const waiting = () => db('invoice as i').whereRaw(`i.state in (${listed(WAITING)})`);
  const found = await rowsOf<Invoice & { name: string }>(
    waiting()
      .join('supplier as s', 's.id', 'i.supplierId')
      // Those that differ, which are held, before those that were entered.
      .orderByRaw('i.state desc, i.id')
      .limit(SHOWN)
      .select('i.*', 's.name'),
  );
  const rows: Waiting[] = [];
  for (const i of found) {
    const held = await differenceOf(db, i, 'words');
    const difference = held === undefined ? '' : `, ${held}`;
    rows.push({
      word: held === undefined ? 'Match' : 'Held',
      weight: held === undefined ? 'good' : 'over',
      text: `${i.name} ${i.number}, ${formatMoney(i.gross, i.currency)}${difference}`,
      step: held === undefined ? 'Match' : 'Review',
      href: `/invoices/${i.id}`,
    });
  }
  return { title: 'To match', href: '/invoices', count: await countOf(waiting()), rows };
}
