import { loadPaper } from '@/workings/orders/paper';
import { must, q, TestCompany, TODAY } from '../../../tests/support/company';
import { orderInput, type OrderInput } from '../../../tests/support/typed';
import type { StoredOrder } from '@/store/orders';
import { changeOrder } from './orders';
import { beginRevision, changeRevision } from './revising';
import { sendOrder } from './sending';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
  await yard.db('supplier').update({ carriage: 0 as never });
});
afterEach(() => yard.closeProven());

/** Three lines, sent. */
const sentWithThree = async () =>
  yard.send(
    await yard.draft([
      { needId: await yard.need({ description: 'Hose' }), buy: q(12) },
      { needId: await yard.need({ description: 'Clamp' }), buy: q(4) },
      { needId: await yard.need({ description: 'Seal' }), buy: q(2) },
    ]),
  );

/** Revises an order, and sends the revision. */
async function revised({ id }: StoredOrder, edit: (text: OrderInput) => void): Promise<StoredOrder> {
  const { version } = await yard.order(id);
  const buyer = await yard.as('buyer');
  must(await beginRevision(buyer, { once: yard.once(), orderId: id, version, reason: 'It changed' }));
  const now = await yard.order(id);
  const text = orderInput(now);
  edit(text);
  must(await changeRevision(buyer, { once: yard.once(), orderId: id, version: now.version, ...text } as never));
  must(await sendOrder(buyer, { once: yard.once(), orderId: id, version: (await yard.order(id)).version }));
  return yard.order(id);
}

const numbers = (order: StoredOrder) => order.lines.map((l) => [l.number, l.description]);

const without = (text: OrderInput, name: string) => {
  text.lines = text.lines.filter((l) => l.description !== name);
};
const withNew = (text: OrderInput, description: string) => {
  const [line] = text.lines;
  if (line === undefined) throw new Error('There is no line.');
  const { id: _, ...rest } = line;
  text.lines = [...text.lines, { ...rest, description, splits: line.splits.map(({ id: __, ...s }) => s) } as never];
};
const onPaper = async (order: StoredOrder) =>
  (await loadPaper(yard.db, order.id, TODAY))?.lines.map((l) => [l.number, l.description, l.struck]);

describe('the number of a line', () => {
  it('stays its own when a line before it is cancelled, which stands struck on the paper', async () => {
    const order = await revised(await sentWithThree(), (text) => without(text, 'Clamp'));
    expect(numbers(order)).toEqual([
      [1, 'Hose'],
      [3, 'Seal'],
    ]);
    expect(await onPaper(order)).toEqual([
      [1, 'Hose', false],
      [2, 'Clamp', true],
      [3, 'Seal', false],
    ]);
  });

  it('is never had twice, though the last line was cancelled before', async () => {
    const first = await revised(await sentWithThree(), (text) => without(text, 'Seal'));
    const order = await revised(first, (text) => withNew(text, 'Valve'));
    expect(numbers(order)).toEqual([
      [1, 'Hose'],
      [2, 'Clamp'],
      [4, 'Valve'],
    ]);
    expect(await onPaper(order)).toEqual([
      [1, 'Hose', false],
      [2, 'Clamp', false],
      [3, 'Seal', true],
      [4, 'Valve', false],
    ]);
  });

  it('is told in the mail of the revision', async () => {
    await revised(await sentWithThree(), (text) => {
      without(text, 'Clamp');
      withNew(text, 'Valve');
    });
    const mail = yard.sent.at(-1)?.raw.toString() ?? '';
    expect(mail).toContain('Line 2, Clamp: cancelled');
    expect(mail).toContain('Line 4, Valve: added');
  });

  it('is counted anew as long as the order is drafted', async () => {
    const draft = await yard.draft([
      { needId: await yard.need({ description: 'Hose' }), buy: q(12) },
      { needId: await yard.need({ description: 'Clamp' }), buy: q(4) },
    ]);
    const text = orderInput(draft);
    without(text, 'Hose');
    const ref = { once: yard.once(), orderId: draft.id, version: draft.version, number: draft.number };
    must(await changeOrder(await yard.as('buyer'), { ...ref, ...text } as never));
    expect(numbers(await yard.order(draft.id))).toEqual([[1, 'Clamp']]);
  });
});
