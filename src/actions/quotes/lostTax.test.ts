import { costOf } from '@/core/money/tax';
import { minor } from '@/core/money/money';
import { lostTax } from '@/store/company';
import { loadLevels } from '@/store/levels';
import { rowsOf } from '@/store/rows';
import { pageOfOpenNeeds } from '@/queries/buying/openNeeds';
import { must, q, TestCompany, TODAY } from '../../../tests/support/company';
import { quoting } from '../../../tests/support/quoting';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
  await yard.db('supplier').update({ carriage: 0 as never });
  // 20 % of which nothing is got back.
  await yard.db('supplier').where({ id: yard.ids.suppliers[1] }).update({ taxCodeId: 2 });
});
afterEach(() => yard.closeProven());

const { line, fill, win } = quoting(() => yard);

describe('tax that cannot be recovered', () => {
  it('is in the budget that a won quote opens, so that its job is not over before anything is bought', async () => {
    const from = { supplierId: yard.ids.suppliers[1] };
    must(await fill(line('Plate', from), line('Rod'), line('Crane', { ...from, kind: 'allowance' })));
    expect(must(await win()).budget).toBe(2400 + 2000 + 2400);
    const levels = await loadLevels(yard.db, [yard.ids.jobs[0]]);
    expect(levels).toMatchObject([{ budget: 6800, amounts: { planned: 4400 } }]);
  });

  it('is in what Gather says a line comes to, which is not above its quote for it', async () => {
    must(await fill(line('Plate', { supplierId: yard.ids.suppliers[1] })));
    must(await win());
    const read = async () => {
      const { rows } = await pageOfOpenNeeds(yard.db, (await yard.as('buyer')).actor, TODAY, {}, undefined);
      return rows.map((n) => [
        n.buying?.value,
        n.more,
        n.tags.filter((t) => t.of === 'aboveQuote').map((t) => t.words),
      ]);
    };
    expect(await read()).toEqual([[2400, 0, []]]);
    // Quoted from somebody whose tax is got back, it is dearer by the tax.
    await yard.db('quoteLine').update({ supplierId: yard.ids.suppliers[0] });
    expect(await read()).toEqual([[2400, 0, ['£\u202f4.00 above quote']]]);
    const order = await yard.draft([{ needId: (await yard.db('need').first('id'))?.id ?? 0, buy: q(2) }]);
    expect(order.lines[0]?.splits[0]?.value).toBe(2400);
  });

  it('is worked out in SQL as in the core', async () => {
    for (const net of [0, 1, 2, 3, 7, 99, 12_345, 999_999, 4_503_599_627_370])
      for (const [rate, recoverable] of [
        [2000, 0],
        [1950, 3333],
        [725, 5000],
        [2000, 10_000],
      ] as const) {
        const [row] = await rowsOf<{ lost: number }>(
          yard.db.raw(
            `select ${lostTax('n.net', 't')} as lost from (select cast(? as integer) as net) n, (select cast(? as integer) as rate, cast(? as integer) as recoverable) t`,
            [net, rate, recoverable],
          ),
        );
        expect([net, rate, recoverable, row?.lost]).toEqual([
          net,
          rate,
          recoverable,
          costOf(minor(net), { rate, recoverable }) - net,
        ]);
      }
  });
});
