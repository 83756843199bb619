import { must, q, TestCompany } from '../../tests/support/company';
import { changeNeed, chooseSupplier } from './needs';
import { callOff, changeOrder, closeShort, draftOrders, holdOrder } from './orders';
import { moveQuote, winQuote } from './quotes';
import { receive } from './receiving';
import { markSentByHand, sendOrder } from './sending';
import { saveItem, saveSupplier } from './suppliers';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.close());

const OLD = 999;

/** Each change of a thing that carries a version, made from a version that no longer stands. */
describe('a stale version', () => {
  const drafted = async () => yard.draft([{ needId: await yard.need(), buy: q(12) }]);

  it.each([
    [
      'changing an order',
      async () => {
        const { id } = await drafted();
        const text = { placeId: 1, wantedOn: '', carrier: '', instructions: '', lines: [] };
        return changeOrder(await yard.as('buyer'), { once: yard.once(), orderId: id, version: OLD, ...text });
      },
    ],
    [
      'holding an order open',
      async () => holdOrder(await yard.as('buyer'), { orderId: (await drafted()).id, version: OLD, hold: true }),
    ],
    [
      'calling an order off',
      async () => {
        const { id } = await drafted();
        return callOff(await yard.as('buyer'), { once: yard.once(), orderId: id, version: OLD, reason: 'x' });
      },
    ],
    [
      'sending an order',
      async () => sendOrder(await yard.as('buyer'), { once: yard.once(), orderId: (await drafted()).id, version: OLD }),
    ],
    [
      'marking an order as sent by hand',
      async () => {
        const { id } = await drafted();
        return markSentByHand(await yard.as('buyer'), { once: yard.once(), orderId: id, version: OLD });
      },
    ],
    [
      'closing a line short',
      async () => {
        const { id, lines } = await yard.send(await drafted());
        const input = { once: yard.once(), orderId: id, version: OLD, lineId: lines[0]?.id ?? 0, reason: 'x' };
        return closeShort(await yard.as('buyer'), input);
      },
    ],
    [
      'taking a delivery in',
      async () => {
        const { id, lines } = await yard.send(await drafted());
        const arrivals = [{ lineId: lines[0]?.id ?? 0, arrives: q(1), keepOver: false }];
        return receive(await yard.as('storekeeper'), {
          once: yard.once(),
          orderId: id,
          version: OLD,
          note: '',
          arrivals,
        });
      },
    ],
    [
      'adding to a draft',
      async () => {
        const into = [{ orderId: (await drafted()).id, version: OLD }];
        const picks = [{ needId: await yard.need(), buy: q(1) }];
        return draftOrders(await yard.as('buyer'), { once: yard.once(), picks, into });
      },
    ],
    [
      'choosing a supplier',
      async () => {
        const needs = [{ needId: await yard.need({ supplier: null }), version: OLD }];
        return chooseSupplier(await yard.as('buyer'), { needs, supplierId: yard.ids.suppliers[0] });
      },
    ],
    [
      'changing a need',
      async () => {
        const text = { description: 'Hose', unit: 'MTR', price: null, supplierId: null, neededOn: '' };
        const input = { needId: await yard.need(), version: OLD, quantity: q(1), costCodeId: 1, ...text };
        return changeNeed(await yard.as('buyer'), input);
      },
    ],
    ['moving a quote', async () => moveQuote(await yard.as('lead'), { quoteId: 1, version: OLD, to: 'lost' })],
    [
      'winning a quote',
      async () => winQuote(await yard.as('lead'), { once: yard.once(), quoteId: 1, version: OLD, wonBy: 'x' }),
    ],
    [
      'matching an invoice',
      async () => {
        const order = await yard.send(await drafted());
        return yard.match(must(await yard.bill(order, 1)).id, 'x', 'accounts', OLD);
      },
    ],
    [
      'saving a supplier',
      async () => {
        const money = { currency: 'GBP', rate: 1_000_000, carriage: 0 as never, carriageFreeFrom: null, taxCodeId: 1 };
        const text = { name: 'Eelmoor Metals', contact: '', email: '', address: '', carrier: '' };
        const input = { once: yard.once(), id: 1, version: OLD, paymentDays: 1, leadDays: 1, ...text, ...money };
        return saveSupplier(await yard.as('buyer'), input);
      },
    ],
    [
      'saving an item',
      async () => {
        const text = { number: 'TU-1', name: 'Tube', unit: 'MTR', stocked: false, costCodeId: null, supplierId: null };
        return saveItem(await yard.as('buyer'), { once: yard.once(), id: 1, version: OLD, part: null, ...text });
      },
    ],
  ])('is noticed when %s, and nothing is changed', async (_, act) => {
    const outcome = await act();
    expect(outcome.status).toBe('clash');
    const [changed] = (await yard.db('audit').whereLike('words', 'Changed%').count({ n: '*' })) as { n: number }[];
    expect(changed?.n).toBe(0);
    expect(yard.sent.length).toBeLessThanOrEqual(1);
  });
});
