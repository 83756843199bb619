import { writeBudgetChange } from '@/actions/jobs/budgets';
import { minor } from '@/core/money/money';
import { must, pence, type DemoYard } from './yard';

/** A job of which something is held back, and a change of its budget that waits to be agreed. */
export async function layOutBudgets(yard: DemoYard): Promise<void> {
  const job = await yard.db('job').where({ number: '422' }).first('id');
  const codes = new Map((await yard.db('costCode')).map((c) => [c.code, c.id]));
  const line = (code: string | null, pounds: number) => ({
    costCodeId: code === null ? null : (codes.get(code) ?? 0),
    amount: minor(pence(pounds)),
  });
  const nothing = { customerReference: '', agreedBy: '', quoteChange: null };
  const write = async (who: 'asha' | 'mina', back: number, said: object, lines: readonly ReturnType<typeof line>[]) =>
    must(
      await writeBudgetChange(await yard.as(who, -back), {
        once: yard.once(),
        jobId: job?.id ?? 0,
        day: yard.day(-back),
        ...nothing,
        reason: '',
        agreed: who === 'asha',
        ...said,
        lines: [...lines],
      }),
    );
  await write('asha', 2, { reason: 'Contingency for what opens up under the old planking' }, [
    line('01', -200),
    line(null, 200),
  ]);
  await write(
    'mina',
    1,
    {
      reason: 'The owner wants bronze cleats in the place of galvanised ones',
      customerReference: 'Letter of 9 May',
      agreedBy: 'The owner, by telephone',
      quoteChange: minor(pence(240)),
    },
    [line('04', 180)],
  );
}
