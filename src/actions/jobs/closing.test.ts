import { must, q, refusedWith, TestCompany } from '../../../tests/support/company';
import { setRules } from '../../../tests/support/signing';
import { writeBudgetChange } from './budgets';
import { closeJob, holdJob, reopenJob } from './closing';
import { closeShort, endInvoices } from '../orders/ending';
import { addNeed } from '../buying/needs';
import { draftOrders } from '../orders/orders';
import { sendOrder } from '../orders/sending';
import { winQuote } from '../quotes/winning';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.closeProven());

const versionOf = async () => (await yard.db('job').where({ id: yard.ids.jobs[0] }).first('version'))?.version ?? 0;
const ref = async () => ({ jobId: yard.ids.jobs[0], version: await versionOf() });
const close = async () => closeJob(await yard.as('lead'), { once: yard.once(), ...(await ref()) });
const messages = (outcome: Awaited<ReturnType<typeof close>>) =>
  outcome.status === 'refused' ? outcome.refusals.map((r) => r.message) : [];

async function ordered(n = 12) {
  await yard.db('supplier').update({ carriage: 0 as never });
  return yard.draft([{ needId: await yard.need({ quantity: n }), buy: q(n) }]);
}

describe('a job', () => {
  it('is not closed while an order of it is drafted, sent, part in, or in and not invoiced; each is named', async () => {
    const order = await ordered();
    expect(messages(await close())).toEqual([`${order.number} is open. Cancel, close short or receive them first.`]);
    const sent = await yard.send(order);
    expect(refusedWith(await close())).toEqual(['close.orders']);
    must(await yard.takeIn(sent, 5));
    expect(refusedWith(await close())).toEqual(['close.orders']);
    must(await yard.takeIn(sent, 7));
    expect(messages(await close())).toEqual([
      `Goods on ${order.number} are received but not invoiced. Match the invoices, or mark No more invoices.`,
    ]);
    const { id } = must(await yard.invoice(sent, 12, { number: 'B 7' }));
    expect(refusedWith(await close())).toEqual(['close.uninvoiced', 'close.invoices']);
    must(await yard.match(id));
    must(await close());
  });

  it('is closed where its rest was closed short, or no invoice will come', async () => {
    const sent = await yard.send(await ordered());
    must(await yard.takeIn(sent, 5));
    const lineId = sent.lines[0]?.id ?? 0;
    const now = async () => ({
      once: yard.once(),
      orderId: sent.id,
      version: (await yard.order(sent.id)).version,
      lineId,
      reason: 'x',
    });
    must(await closeShort(await yard.as('buyer'), await now()));
    expect(refusedWith(await close())).toEqual(['close.uninvoiced']);
    must(await endInvoices(await yard.as('accounts'), await now()));
    must(await close());
  });

  it('is not closed while a budget change is to be agreed', async () => {
    const said = { day: '2026-05-12', reason: 'x', customerReference: '', agreedBy: '', quoteChange: null };
    const lines = [{ costCodeId: yard.ids.codes[0], amount: 100 as never }];
    const [jobId] = yard.ids.jobs;
    must(await writeBudgetChange(await yard.as('lead'), { once: yard.once(), jobId, agreed: false, ...said, lines }));
    expect(messages(await close())).toEqual(['Budget change 1 is awaiting agreement. Agree or withdraw it first.']);
  });

  it('that is closed is bought for no more, until it is opened again with a reason', async () => {
    const needId = await yard.need();
    must(await close());
    const draft = async () =>
      draftOrders(await yard.as('buyer'), { once: yard.once(), picks: [{ needId, buy: q(1) }] });
    expect(refusedWith(await draft())).toEqual(['job.state']);
    const late = { description: 'Late', quantity: q(1), unit: 'C62', costCodeId: yard.ids.codes[0], supplierId: null };
    const need = { once: yard.once(), jobId: yard.ids.jobs[0], itemId: null, price: null, neededOn: '', ...late };
    expect(refusedWith(await addNeed(await yard.as('buyer'), need as never))).toEqual(['job.state']);
    expect(refusedWith(await close())).toEqual(['job.state']);
    const reopen = async (reason: string) => reopenJob(await yard.as('lead'), { ...(await ref()), reason });
    expect(refusedWith(await reopen(' '))).toEqual(['input']);
    must(await reopen('The gland leaks'));
    must(await draft());
  });

  it('that is closed takes no posting, even where a rule was forgotten: the ledger refuses', async () => {
    const sent = await yard.send(await ordered());
    await yard.db('job').update({ state: 'complete' });
    expect(refusedWith(await yard.takeIn(sent, 5))).toEqual(['job.closed']);
    expect(await yard.tab()).toEqual({ onOrder: 9600 });
  });

  it('that is closed takes no budget from a quote that is won late', async () => {
    const [jobId] = yard.ids.jobs;
    const quote = await yard.db('quote').where({ jobId }).first('id', 'version');
    const line = { kind: 'allowance', description: 'Sundries', quantity: q(1), unit: 'C62', cost: 500_000, net: 5000 };
    await yard
      .db('quoteLine')
      .insert({ ...line, quoteId: quote?.id, place: 1, costCodeId: yard.ids.codes[0] } as never);
    must(await close());
    const won = { once: yard.once(), quoteId: quote?.id ?? 0, version: quote?.version ?? 0, wonBy: 'The customer' };
    expect(refusedWith(await winQuote(await yard.as('lead'), won))).toEqual(['job.closed']);
    expect(await yard.db('budgetEntry')).toEqual([]);
  });

  it('is closed by a lead or manager, not by who buys', async () =>
    expect(refusedWith(await closeJob(await yard.as('buyer'), { once: yard.once(), ...(await ref()) }))).toEqual([
      'right',
    ]));

  it('on hold is bought for as the rule says', async () => {
    const order = await ordered();
    must(await holdJob(await yard.as('lead'), { ...(await ref()), reason: 'The ship is out' }));
    must(await setRules(yard, { onHold: 'forbid' }));
    const send = async () =>
      sendOrder(await yard.as('buyer'), { once: yard.once(), orderId: order.id, version: order.version });
    expect(refusedWith(await send())).toEqual(['rule.forbids']);
    must(await holdJob(await yard.as('lead'), { ...(await ref()), reason: null }));
    must(await send());
  });
});
