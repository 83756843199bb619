import { may } from '@/core/people/rights';
import type { Db } from '@/store/connection';
import type { Person } from '@/store/people';

export type Found = {
  readonly kind: 'Job' | 'Order' | 'Item' | 'Supplier' | 'Invoice';
  readonly label: string;
  readonly detail: string;
  readonly href: string;
};

const EACH = 6;

/** Looks for jobs, orders, items, suppliers and invoices by number or words; only what the person may see. */
export async function find(db: Db, person: Person, words: string): Promise<Found[]> {
  const like = `%${words.trim()}%`;
  if (words.trim() === '') return [];
  const found: Found[] = [];
  if (may(person, 'see jobs')) {
    const jobs = (await db('job')
      .whereLike('number', like)
      .orWhereLike('name', like)
      .orderBy('number', 'desc')
      .limit(EACH)
      .select('number', 'name')) as { number: string; name: string }[];
    found.push(
      ...jobs.map((j): Found => ({ kind: 'Job', label: j.number, detail: j.name, href: `/jobs/${j.number}` })),
    );
  }
  if (may(person, 'see orders')) {
    const orders = (await db('purchaseOrder as o')
      .join('supplier as s', 's.id', 'o.supplierId')
      .whereLike('o.number', like)
      .orWhereLike('s.name', like)
      .orderBy('o.id', 'desc')
      .limit(EACH)
      .select('o.number', 's.name')) as { number: string; name: string }[];
    found.push(
      ...orders.map((o): Found => ({
        kind: 'Order',
        label: o.number,
        detail: o.name,
        href: may(person, 'see money') ? `/orders/${o.number}` : `/dock/${o.number}`,
      })),
    );
  }
  if (may(person, 'see money')) {
    const items = (await db('item')
      .whereLike('number', like)
      .orWhereLike('name', like)
      .orderBy('number')
      .limit(EACH)
      .select('id', 'number', 'name')) as { id: number; number: string; name: string }[];
    found.push(...items.map((i): Found => ({ kind: 'Item', label: i.number, detail: i.name, href: `/items/${i.id}` })));
    const suppliers = (await db('supplier')
      .whereLike('name', like)
      .orderBy('name')
      .limit(EACH)
      .select('id', 'name', 'contact')) as { id: number; name: string; contact: string }[];
    found.push(
      ...suppliers.map((s): Found => ({
        kind: 'Supplier',
        label: s.name,
        detail: s.contact,
        href: `/suppliers/${s.id}`,
      })),
    );
  }
  if (may(person, 'see invoices')) {
    const invoices = (await db('invoice as i')
      .join('supplier as s', 's.id', 'i.supplierId')
      .whereLike('i.number', like)
      .orderBy('i.id', 'desc')
      .limit(EACH)
      .select('i.id', 'i.number', 's.name')) as { id: number; number: string; name: string }[];
    found.push(
      ...invoices.map((i): Found => ({ kind: 'Invoice', label: i.number, detail: i.name, href: `/invoices/${i.id}` })),
    );
  }
  return found;
}
