import { JOB_KINDS, LIVE } from '@/core/jobs/states';
import { plusDays, type Day } from '@/core/calendar/workdays';
import { PAR } from '@/core/money/rate';
import { hashPassword } from '@/actions/people/passwords';
import type { Db } from '@/store/db';
import { postOne } from '@/store/ledger';
import { insertPerson } from '@/store/people';
import { chunks, insertMany } from '@/store/rows';
import { BESIDE, DRAFTS, PLANNED, SIZE } from './sizes';

/** A small generator of its own, so that every run makes the same company. */
function generator(seed: number) {
  let state = seed;
  return (below: number): number => {
    state = (state * 1_664_525 + 1_013_904_223) % 4_294_967_296;
    return Math.floor((state / 4_294_967_296) * below);
  };
}

const range = (n: number) => Array.from({ length: n }, (_, k) => k);

/**
 * Fills an empty file with a large company: its documents are written in bulk, and its ledger is posted by the
 * application's own postings, stage after stage.
 */
export async function makeLargeCompany(db: Db, today: Day, tell: (words: string) => void): Promise<void> {
  const pick = generator(20_260_512);
  const day = (n: number) => plusDays(today, n);
  await base(db);
  const suppliers = range(SIZE.suppliers).map((k) => ({
    id: k + 1,
    name: `Supplier ${k + 1}`,
    email: `orders@s${k + 1}.example`,
    currency: 'GBP',
    leadDays: 1 + pick(12),
    carriage: pick(3) * 1000,
    carriageFreeFrom: pick(2) === 0 ? null : 30_000,
    taxCodeId: 1,
  }));
  await insertMany(db, 'supplier', suppliers);
  await insertMany(
    db,
    'item',
    range(SIZE.items).map((k) => ({
      id: k + 1,
      number: `IT-${String(k + 1).padStart(5, '0')}`,
      name: `Part ${k + 1}, ${10 + pick(90)} mm`,
      unit: 'C62',
      costCodeId: 1 + pick(8),
      supplierId: 1 + (k % SIZE.suppliers),
    })),
  );
  await insertMany(
    db,
    'supplierPart',
    range(SIZE.items).map((k) => ({
      id: k + 1,
      itemId: k + 1,
      supplierId: 1 + (k % SIZE.suppliers),
      theirNumber: `T${k}`,
      unit: 'C62',
    })),
  );
  await insertMany(
    db,
    'priceBreak',
    range(SIZE.items).map((k) => ({ partId: k + 1, fromQuantity: 0, price: 10_000 * (1 + pick(400)) })),
  );
  await insertMany(
    db,
    'customer',
    range(90).map((k) => ({ id: k + 1, name: `Customer ${k + 1}` })),
  );
  const jobs = range(SIZE.jobs).map((k) => ({
    id: k + 1,
    number: String(1001 + k),
    name: `Make vessel ${k + 1} a working day`,
    shortName: `Vessel ${k + 1}`,
    kind: JOB_KINDS[k % 3] ?? 'contract',
    state: LIVE,
    customerId: 1 + pick(90),
    leadId: 1,
    dueOn: day(pick(120)),
  }));
  await insertMany(db, 'job', jobs);
  await insertMany(
    db,
    'budgetEntry',
    jobs.flatMap((j) =>
      range(8).map((c) => ({
        jobId: j.id,
        costCodeId: c + 1,
        kind: 'opening',
        amount: 200_000 + pick(900_000),
        reason: 'Quote won',
        personId: 1,
        day: day(-200),
        at: day(-200),
      })),
    ),
  );
  await insertMany(
    db,
    'item',
    range(BESIDE.items).map((k) => ({
      id: SIZE.items + k + 1,
      number: `SP-${String(k + 1).padStart(5, '0')}`,
      name: `${['Bolt', 'Pipe', 'Plate', 'Cable', 'Valve', 'Seal'][k % 6]} ${1 + pick(300)} mm, type ${k}`,
      unit: 'C62',
    })),
  );
  await insertMany(
    db,
    'job',
    range(BESIDE.jobs).map((k) => ({
      id: SIZE.jobs + k + 1,
      number: `A${k + 1}`,
      name: `Earlier work ${k + 1}`,
      shortName: `Earlier ${k + 1}`,
      kind: 'repair',
      state: 'complete',
      customerId: 1 + pick(90),
      leadId: 1,
    })),
  );
  tell('jobs, suppliers and items');

  const needs = range(SIZE.needs).map((k) => {
    const item = 1 + pick(SIZE.items);
    return {
      id: k + 1,
      jobId: 1 + (k % SIZE.jobs),
      itemId: item,
      description: `Part ${item}`,
      quantity: 10_000 * (1 + pick(20)),
      unit: 'C62',
      costCodeId: 1 + pick(8),
      price: 10_000 * (1 + pick(400)),
      supplierId: 1 + ((item - 1) % SIZE.suppliers),
      neededOn: day(pick(160) - 80),
      addedOn: day(-190),
    };
  });
  await insertMany(
    db,
    'tabLine',
    needs.map((n) => ({ id: n.id, kind: 'need', words: n.description })),
  );
  await insertMany(db, 'need', needs);
  const happening = (event: string, on: number) => ({
    event,
    document: 'order' as const,
    documentId: 1,
    personId: 1,
    day: day(on),
    at: day(on),
  });
  await postOne(
    db,
    happening('Quote won', -190),
    needs.map((n) => n.id),
  );
  tell('needs');

  const states = (k: number) =>
    k > SIZE.orders - DRAFTS
      ? 'drafting'
      : k % 5 === 0
        ? 'sent'
        : k % 5 === 1
          ? 'partIn'
          : k % 5 === 2
            ? 'allIn'
            : 'settled';
  const orders = range(SIZE.orders).map((k) => ({
    id: k + 1,
    number: `K26-${String(k + 1).padStart(5, '0')}`,
    supplierId: 1 + (k % SIZE.suppliers),
    state: 'drafting' as const,
    currency: 'GBP',
    rate: PAR,
    placeId: 1,
    wantedOn: day(pick(120) - 100),
    madeBy: 2,
    madeOn: day(-150),
    madeAt: day(-150),
    net: 0,
    gross: 0,
  }));
  await insertMany(db, 'purchaseOrder', orders);
  const lines = range(SIZE.lines)
    .map((k) => ({
      id: k + 1,
      orderId: 1 + (k % SIZE.orders),
      place: 1 + Math.floor(k / SIZE.orders),
      kind: 'goods' as const,
      description: `Part ${1 + (k % SIZE.items)}`,
      quantity: 10_000 * (2 + pick(20)),
      unit: 'C62',
      shareUnit: 'C62',
      price: 10_000 * (1 + pick(300)),
      taxCodeId: 1,
      wantedOn: day(pick(120) - 60),
    }))
    .map((l) => ({ ...l, net: (l.quantity / 10_000) * (l.price / 100) }));
  await insertMany(db, 'orderLine', lines);
  const splits = lines.map((l, k) => {
    const need = k < SIZE.needs * 0.85 ? needs[k] : undefined;
    return {
      id: SIZE.needs + k + 1,
      lineId: l.id,
      place: 1,
      jobId: need?.jobId ?? 1 + pick(SIZE.jobs),
      costCodeId: need?.costCodeId ?? 1 + pick(8),
      needId: need?.id ?? null,
      quantity: l.quantity,
      value: l.net,
    };
  });
  await insertMany(
    db,
    'tabLine',
    splits.map((s, k) => ({ id: s.id, kind: 'split', words: lines[k]?.description })),
  );
  await insertMany(db, 'split', splits);
  await db.raw(
    'update purchase_order set net = (select sum(net) from order_line l where l.order_id = purchase_order.id)',
  );
  await db.raw('update purchase_order set gross = net * 12 / 10');
  const all = [...splits, ...needs].map((l) => l.id);
  await postOne(db, happening('Order drafted', -150), all);
  tell('orders drafted');

  for (const part of chunks(orders))
    for (const o of part)
      if (states(o.id) !== 'drafting')
        await db('purchaseOrder')
          .where({ id: o.id })
          .update({ state: states(o.id), sentOn: day(-140) });
  await postOne(db, happening('Order sent', -140), all);
  tell('orders sent');
  await db.raw(
    "update split set received = quantity where line_id in (select l.id from order_line l join purchase_order o on o.id = l.order_id where o.state in ('allIn', 'settled') or (o.state = 'partIn' and l.place = 1))",
  );
  await takeIn(db, day(-60));
  await postOne(db, happening('Received', -60), all);
  tell('deliveries taken in');
  await bom(db, day(-30));
  await postOne(db, happening('Invoice matched', -30), all);
  tell('invoices matched');
  // A closed job takes no posting, so that jobs are closed last; one of five is.
  await db.raw("update job set state = 'complete' where id <= ? and (id - 1) % 5 = 0", [SIZE.jobs]);
  await plan(db, today, pick);
  await db.raw('ANALYZE');
  tell('stock, a BOM of ten levels, and a job of two thousand lines');
}

/** The first lines of the tab of what lies in stores, and of the job with a long buy list. */
const COUNTS = SIZE.needs + SIZE.lines + 1;
const LONG_LIST = COUNTS + SIZE.items;

/** Stock of half the parts, every job's plan by its shortfall, a deep BOM, and a job with a long buy list. */

async function plan(db: Db, today: Day, pick: (below: number) => number): Promise<void> {
  const { levels, rows, lines, top, job } = PLANNED;
  const counts = range(SIZE.items / 2).map((k) => ({
    ...{ id: COUNTS + k, kind: 'counted' as const, itemId: 2 * k + 1, placeId: 1, day: today, reason: 'opening' },
    ...{ quantity: 10_000 * (5 + pick(200)), value: 100 * (1 + pick(9000)) },
  }));
  await insertMany(
    db,
    'tabLine',
    counts.map((c) => ({ id: c.id, kind: 'stockChange', words: 'count' })),
  );
  await insertMany(db, 'stockChange', counts);
  await insertMany(
    db,
    'stockMove',
    counts.map(({ id, ...c }) => ({ ...c, changeId: id, personId: 1, at: today })),
  );
  await postOne(
    db,
    { event: 'Counted', document: 'item', documentId: 1, personId: 1, day: today, at: today },
    counts.map((c) => c.id),
  );
  await db.raw("update job set planning = 'shortfall'");
  const made = range(levels).map((n) => ({ id: top + n, number: `MADE-${n}`, name: `Assembly ${n}`, unit: 'C62' }));
  await insertMany(db, 'item', made);
  await insertMany(
    db,
    'bom',
    made.map(({ id }, n) => ({ id: n + 1, itemId: id, fromDay: '2026-01-05', makingDays: 1, madeBy: 1 })),
  );
  await insertMany(
    db,
    'bomLine',
    made.flatMap((_, n) =>
      range(rows / levels).map((k) => {
        const below = k === 0 ? made[n + 1] : undefined;
        const itemId = below?.id ?? 1 + pick(SIZE.items);
        return {
          ...{ bomId: n + 1, place: k + 1, gotBy: below === undefined ? 'bought' : 'made', itemId },
          ...{ description: below?.name ?? `Part ${itemId}`, quantity: 10_000 * (1 + pick(3)), unit: 'C62' },
        };
      }),
    ),
  );
  await insertMany(db, 'job', [
    {
      ...{
        id: job,
        number: String(job),
        name: 'A line of two thousand parts',
        shortName: 'Two thousand',
        kind: 'make',
      },
      ...{ state: 'live', customerId: 1, leadId: 1, planning: 'shortfall' },
    },
  ]);
  const needs = range(lines).map((k) => ({
    ...{ id: LONG_LIST + k, jobId: job, itemId: 1 + pick(SIZE.items), description: `Line ${k + 1}`, unit: 'C62' },
    ...{ quantity: 10_000 * (1 + pick(20)), costCodeId: 1 + pick(8), price: 10_000 * (1 + pick(400)) },
    ...{ supplierId: 1 + pick(SIZE.suppliers), neededOn: plusDays(today, 10 + pick(60)), addedOn: today },
  }));
  await insertMany(
    db,
    'tabLine',
    needs.map((n) => ({ id: n.id, kind: 'need', words: n.description })),
  );
  await insertMany(db, 'need', needs);
  await postOne(
    db,
    { event: 'Planned', document: 'job', documentId: job, personId: 1, day: today, at: today },
    needs.map((n) => n.id),
  );
}

/** One receipt for each order that has something in. */
async function takeIn(db: Db, on: Day): Promise<void> {
  await db.raw(
    "insert into receipt (id, order_id, number, person_id, day, at) select id, id, 'R-' || id, 2, ?, ? from purchase_order where state in ('partIn', 'allIn', 'settled')",
    [on, on],
  );
  await db.raw(
    'insert into receipt_split (receipt_id, split_id, quantity) select l.order_id, s.id, s.received from split s join order_line l on l.id = s.line_id where s.received > 0',
  );
  await db.raw(
    'insert into receipt_line (receipt_id, line_id, accepted) select l.order_id, l.id, s.received from split s join order_line l on l.id = s.line_id where s.received > 0',
  );
  await db.raw('update order_line set received = (select sum(received) from split s where s.line_id = order_line.id)');
}

async function bom(db: Db, on: Day): Promise<void> {
  await db.raw(
    "update split set invoiced = quantity, invoiced_amount = value where line_id in (select l.id from order_line l join purchase_order o on o.id = l.order_id where o.state = 'settled')",
  );
  await db.raw(
    "insert into invoice (order_id, supplier_id, number, day, due_on, state, currency, rate, net, tax, gross, typed_total, entered_by, entered_at) select id, supplier_id, 'B' || id, ?, ?, case state when 'settled' then 'matched' else 'entered' end, 'GBP', '1', net, gross - net, gross, gross, 2, ? from purchase_order where state in ('settled', 'allIn')",
    [on, on, on],
  );
  await db.raw(
    'insert into invoice_line (invoice_id, place, line_id, quantity, price, price_quantity, tax_code_id, net) select i.id, l.place, l.id, l.quantity, l.price, 1, 1, l.net from invoice i join order_line l on l.order_id = i.order_id',
  );
  await db.raw('update order_line set invoiced = (select sum(invoiced) from split s where s.line_id = order_line.id)');
  await db.raw(
    "insert into invoice_split (invoice_line_id, split_id, quantity, amount) select n.id, s.id, s.invoiced, s.invoiced_amount from invoice i join invoice_line n on n.invoice_id = i.id join split s on s.line_id = n.line_id where i.state = 'matched'",
  );
}

async function base(db: Db): Promise<void> {
  await insertMany(
    db,
    'costCode',
    range(8).map((k) => ({ id: k + 1, code: String(k + 1).padStart(2, '0'), name: `Heading ${k + 1}` })),
  );
  await db('taxCode').insert({ id: 1, name: 'VAT 20 %', rate: 2000, recoverable: 10_000 });
  await db('company').insert({
    id: 1,
    name: 'Large Works',
    address: 'Quay',
    email: 'buying@large.example',
    currency: 'GBP',
    orderPattern: 'K{yy}-{00000}',
    freightCodeId: 8,
  });
  await insertMany(db, 'deliveryPlace', [{ id: 1, name: 'Yard', address: 'Quay' }]);
  await db('counter').insert({ name: 'order 2026', last: SIZE.orders });
  const passwordHash = await hashPassword('not used here');
  await insertPerson(db, { name: 'The Lead', email: 'lead@large.example', passwordHash, roles: ['lead'] });
  await insertPerson(db, {
    name: 'The Buyer',
    email: 'buyer@large.example',
    passwordHash,
    roles: ['manager', 'buyer', 'accounts', 'storekeeper'],
  });
}
