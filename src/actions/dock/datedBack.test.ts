import { plusDays, type Day } from '@/core/calendar/workdays';
import type { StoredOrder } from '@/store/orders';
import { openDock, type Dock } from '../../../tests/support/dock';
import { must, q, refusedWith, type TestCompany, TODAY } from '../../../tests/support/company';
import { orderInput, type OrderInput } from '../../../tests/support/typed';
import { matchInvoice } from '../invoices/invoices';
import { chargeElsewhere } from '../orders/charging';
import { closeShort, reopenLines } from '../orders/ending';
import { beginRevision, changeRevision } from '../orders/revising';
import { markSentByHand } from '../orders/sending';
import { correctReceipt } from './correcting';
import { inspect } from './inspecting';
import { returnGoods } from './sendingBack';

let yard: TestCompany;
let dock: Dock;

/** The day so many days after the order went out. */
const on = (n: number): Day => plusDays(TODAY, n);

beforeEach(async () => {
  ({ yard, dock } = await openDock());
});
afterEach(() => yard.closeProven());

/** What somebody does so many days after the order went out. */
async function later<T>(n: number, act: () => Promise<T>): Promise<T> {
  yard.today = on(n);
  return act();
}

const ref = async (of: StoredOrder) => ({
  ...{ once: yard.once(), orderId: of.id, version: (await yard.order(of.id)).version },
});

const line = async (of: StoredOrder) => ({ ...(await ref(of)), lineId: (await dock.line(of)).id, reason: 'no' });

async function sendBack(of: StoredOrder, n: number, day: Day, wants: 'credit' | 'replacement' = 'replacement') {
  const lines = [{ lineId: (await dock.line(of)).id, quantity: q(n), from: 'accepted' as const, wants }];
  return returnGoods(await yard.as('storekeeper'), { ...(await ref(of)), reason: 'faulty', day, lines });
}

/** Sends a revision, after `edit` has typed into the order. */
async function revise(of: StoredOrder, edit: (text: OrderInput) => void): Promise<void> {
  const buyer = await yard.as('buyer');
  must(await beginRevision(buyer, { ...(await ref(of)), reason: 'The job grew' }));
  const text = orderInput(await yard.order(of.id));
  edit(text);
  must(await changeRevision(buyer, { ...text, ...(await ref(of)) } as never));
  must(await markSentByHand(buyer, await ref(of)));
}

/** What stood on the job's tab at the end of each of these days. */
const tabs = async (days: readonly number[], job: 0 | 1 = 0) => {
  const told = [];
  for (const n of days) told.push(await yard.tab(job, on(n)));
  return told;
};

describe('a delivery written days after it came', () => {
  it('is on the tab of who was charged then, and of who is charged since', async () => {
    const { order: of } = await dock.ordered(10);
    await later(3, async () => {
      const [split] = (await dock.line(of)).splits;
      const splits = [{ id: split?.id ?? 0, jobId: yard.ids.jobs[1], costCodeId: yard.ids.codes[0] }];
      must(await chargeElsewhere(await yard.as('buyer'), { ...(await ref(of)), splits, reason: 'wrong job' }));
    });
    await later(7, async () => must(await dock.take(of, 4, {}, { day: on(1) })));
    expect(await tabs([0, 1, 2, 3, 7])).toEqual([
      { onOrder: 8000 },
      { onOrder: 4800, received: 3200 },
      { onOrder: 4800, received: 3200 },
      // Its need has no order any more.
      { planned: 8000 },
      { planned: 8000 },
    ]);
    expect(await tabs([1, 2, 3, 7], 1)).toEqual([
      {},
      {},
      { onOrder: 4800, received: 3200 },
      { onOrder: 4800, received: 3200 },
    ]);
  });

  it('is worth what the order said on each day', async () => {
    const { order: of } = await dock.ordered(10);
    await later(3, () =>
      revise(of, (text) => {
        for (const l of text.lines) l.price = 90_000 as never;
      }),
    );
    await later(7, async () => must(await dock.take(of, 4, {}, { day: on(1) })));
    expect(await tabs([0, 2, 3, 7])).toEqual([
      { onOrder: 8000 },
      { onOrder: 4800, received: 3200 },
      { onOrder: 5400, received: 3600 },
      { onOrder: 5400, received: 3600 },
    ]);
  });

  it('is received until the invoice that came in between', async () => {
    const { order: of } = await dock.ordered(10);
    await later(3, async () => {
      const invoiceId = must(await yard.invoice(of, 4)).id;
      const { version } = (await yard.db('invoice').where({ id: invoiceId }).first('version')) as { version: number };
      const passed = { once: yard.once(), invoiceId, version, reason: 'agreed' };
      must(await matchInvoice(await yard.as('manager'), passed));
    });
    await later(7, async () => must(await dock.take(of, 6, {}, { day: on(1) })));
    expect(await tabs([0, 2, 3, 7])).toEqual([
      { onOrder: 8000 },
      { onOrder: 3200, received: 4800 },
      { onOrder: 3200, received: 1600, actual: 3200 },
      { onOrder: 3200, received: 1600, actual: 3200 },
    ]);
  });

  it('was in while its line was closed short, and since it was opened again', async () => {
    const { order: of } = await dock.ordered(10);
    await later(3, async () => must(await closeShort(await yard.as('buyer'), await line(of))));
    await later(5, async () => must(await reopenLines(await yard.as('buyer'), await line(of))));
    await later(7, async () => must(await dock.take(of, 4, {}, { day: on(1) })));
    expect(await tabs([0, 2, 3, 5, 7])).toEqual([
      { onOrder: 8000 },
      { onOrder: 4800, received: 3200 },
      { planned: 4800, received: 3200 },
      { onOrder: 4800, received: 3200 },
      { onOrder: 4800, received: 3200 },
    ]);
  });

  it('covers its need from that day on, as far as more came than was ordered', async () => {
    const needId = await dock.need(10);
    const of = await dock.order({ needId, buy: q(6) });
    await later(4, async () => must(await dock.take(of, 8, { keepOver: true }, { day: on(2) })));
    expect(await tabs([0, 1, 2, 4])).toEqual([
      { planned: 3200, onOrder: 4800 },
      { planned: 3200, onOrder: 4800 },
      { planned: 1600, received: 6400 },
      { planned: 1600, received: 6400 },
    ]);
  });

  it('is taken off every day since then when it is put right', async () => {
    const { order: of } = await dock.ordered(10);
    const came = await later(3, async () => must(await dock.take(of, 8)));
    await later(5, () => revise(of, (text) => text.lines.forEach((l) => (l.price = 90_000 as never))));
    const arrivals = [{ lineId: (await dock.line(of)).id, arrives: q(6), keepOver: false }];
    const put = { once: yard.once(), receiptId: came.id, note: '', day: on(2), arrivals };
    await later(9, async () => must(await correctReceipt(await yard.as('storekeeper'), put)));
    expect(await tabs([1, 2, 3, 5, 9])).toEqual([
      { onOrder: 8000 },
      { onOrder: 3200, received: 4800 },
      { onOrder: 3200, received: 4800 },
      { onOrder: 3600, received: 5400 },
      { onOrder: 3600, received: 5400 },
    ]);
  });

  it('is put right where only all of it together could have been', async () => {
    const needId = await yard.need({ quantity: 20, unit: 'C62', description: 'Clamp' });
    const of = await dock.order({ needId, buy: q(20) });
    const first = await later(2, async () => must(await dock.take(of, 8)));
    await later(3, async () => must(await sendBack(of, 4, on(3))));
    await later(5, async () => must(await dock.take(of, 10)));
    const lineId = (await dock.line(of)).id;
    const put = async (day: Day, receiptId: number) =>
      correctReceipt(await yard.as('storekeeper', on(9)), {
        ...{ once: yard.once(), receiptId, note: '', day },
        arrivals: [{ lineId, arrives: q(6), keepOver: false }],
      });
    // Four went on the third day: six had to be there before.
    expect(refusedWith(await put(on(4), first.id))).toEqual(['receive.day']);
    must(await put(on(2), first.id));
    expect(await tabs([1, 2, 3, 5])).toEqual([
      { onOrder: 16_000 },
      { onOrder: 11_200, received: 4800 },
      { onOrder: 14_400, received: 1600 },
      { onOrder: 6400, received: 9600 },
    ]);
  });

  it('cannot be of a line that was added later', async () => {
    const { order: of } = await dock.ordered(10);
    await later(3, () =>
      revise(of, (text) => {
        const [first] = text.lines;
        if (first === undefined) throw new Error('There is no line.');
        const splits = first.splits.map((s) => ({ ...s, id: undefined, needId: null }));
        text.lines.push({ ...first, id: undefined, description: 'Clip', itemId: null, partId: null, splits } as never);
      }),
    );
    const added = (await yard.order(of.id)).lines[1]?.id ?? 0;
    yard.today = on(7);
    const early = await dock.take(of, 4, { lineId: added }, { day: on(2) });
    expect(early).toMatchObject({
      refusals: [{ message: 'Clip was only ordered on Fri 15 May. Choose that date or a later one.' }],
    });
    must(await dock.take(of, 4, { lineId: added }, { day: on(3) }));
  });
});

describe('a return written days after it went', () => {
  it('is off the tab from that day on, and plans anew what is not replaced', async () => {
    const { order: of } = await dock.ordered(10);
    await later(1, async () => must(await dock.take(of, 10)));
    await later(7, async () => must(await sendBack(of, 4, on(3), 'credit')));
    expect(await tabs([0, 1, 3, 7])).toEqual([
      { onOrder: 8000 },
      { received: 8000 },
      { planned: 3200, received: 4800 },
      { planned: 3200, received: 4800 },
    ]);
  });

  it('cannot be before its goods came', async () => {
    const { order: of } = await dock.ordered(10);
    await later(4, async () => must(await dock.take(of, 10)));
    yard.today = on(7);
    expect(await sendBack(of, 4, on(3))).toMatchObject({
      refusals: [
        {
          message:
            'On Fri 15 May more Tube would have gone than had come. Choose a later date, or reverse what took it first.',
        },
      ],
    });
    must(await sendBack(of, 4, on(4)));
  });

  it('cannot leave less than nothing of what was sent back in between', async () => {
    const { order: of } = await dock.ordered(10);
    await later(1, async () => must(await dock.take(of, 4)));
    await later(3, async () => must(await sendBack(of, 4, on(3))));
    await later(5, async () => must(await dock.take(of, 6)));
    yard.today = on(7);
    expect(refusedWith(await sendBack(of, 4, on(2)))).toEqual(['receive.day']);
    must(await sendBack(of, 4, on(5)));
  });
});

it('an inspection cannot be before what it releases came', async () => {
  await yard.db('item').where({ id: dock.tube }).update({ inspected: 1 });
  const { order: of } = await dock.ordered(10);
  await later(4, async () => must(await dock.take(of, 10)));
  const looked = async (day: Day) =>
    inspect(await yard.as('storekeeper', on(7)), {
      ...(await ref(of)),
      ...{ day, lines: [{ lineId: (await dock.line(of)).id, released: q(10), rejected: q(0) }] },
    });
  expect(refusedWith(await looked(on(3)))).toEqual(['receive.day']);
  must(await looked(on(5)));
  expect(await tabs([4, 5])).toEqual([{ onOrder: 8000 }, { received: 8000 }]);
});
