import { isClosed } from '@/core/jobs/states';
import { closedRefusal } from '@/core/jobs/closing';
import { z } from 'zod';
import { changeFaults, kindOf, partsOf, type ChangeLine } from '@/core/budgets/change';
import { formatMoney, type Minor } from '@/core/money/money';
import { may } from '@/core/people/rights';
import { minorSchema } from '@/core/money/schema';
import { text } from '@/core/records/fields';
import { budgetChangeFields, budgetNoteField, completionFields } from '@/core/records/budget';
import { count, linesOf, loadBudgetsBefore, writeLines } from '@/store/budgets';
import { loadCostCodes } from '@/store/company';
import { insertOne, rowsOf } from '@/store/rows';
import type { BudgetChange, Job } from '@/store/tables';
import type { Day } from '@/core/calendar/workdays';
import { defineAction, found, notPermitted, once, Refused, refuse, sameVersion, type Work } from '../action';

const jobOf = async ({ trx }: Work, id: number): Promise<Job> =>
  found(await trx('job').where({ id }).first(), 'This job');

async function checkChange(work: Work, job: Job, change: { readonly lines: readonly ChangeLine[]; readonly day: Day }) {
  const codes = new Map((await loadCostCodes(work.trx)).map((c) => [c.id, `${c.code} ${c.name}`]));
  if (change.lines.some((l) => l.costCodeId !== null && !codes.has(l.costCodeId)))
    refuse('code.missing', 'A cost code has been removed. Refresh the page and choose again.', 'lines');
  const faults = changeFaults(
    change,
    await loadBudgetsBefore(work.trx, job, change.day),
    work.today,
    (id) => codes.get(id) ?? '',
  );
  if (faults.length > 0) throw new Refused(faults);
}

/** What a change does, in a few words for the history. */
function told(lines: readonly ChangeLine[], currency: string): string {
  const { budget, contingency } = partsOf(lines);
  const signed = (amount: Minor) => `${amount > 0 ? '+' : ''}${formatMoney(amount, currency)}`;
  const kind = kindOf(lines);
  if (kind === 'move') return 'transferred between cost codes';
  return [`budget ${signed(budget)}`, contingency === 0 ? '' : `contingency ${signed(contingency)}`]
    .filter(Boolean)
    .join(', ');
}

/** Lets a change count, and says who agreed. */
async function agree(work: Work, change: BudgetChange, lines: readonly ChangeLine[]): Promise<void> {
  const { trx, actor, today, now } = work;
  await count(trx, change, lines, { personId: actor.id, at: now });
  await trx('budgetChange').where({ id: change.id }).update({ state: 'agreed', decidedBy: actor.id, decidedOn: today });
}

/** Writes a change of a job's budget under the next number: to be agreed, or agreed at once by who may. */
export const writeBudgetChange = defineAction({
  name: 'writeBudgetChange',
  right: 'write budget changes',
  input: z.object({ once, jobId: z.number().int(), agreed: z.boolean(), ...budgetChangeFields.shape }),
  run: async (work, { once: _, jobId, agreed, lines, ...said }) => {
    const { trx, actor, now, company, audit } = work;
    if (agreed) checkMayAgree(work);
    const job = await jobOf(work, jobId);
    await checkChange(work, job, { lines, day: said.day });
    const [last] = await rowsOf<{
      number: number | null;
    }>(trx('budgetChange').where({ jobId }).max({ number: 'number' }));
    const number = (last?.number ?? 0) + 1;
    const id = await insertOne(trx, 'budgetChange', {
      ...{ ...said, jobId, number, state: 'pending', personId: actor.id, at: now },
    });
    await writeLines(trx, id, lines);
    const change = found(await trx('budgetChange').where({ id }).first(), 'This change');
    if (agreed) await agree(work, change, lines);
    await audit({
      words: `${agreed ? 'Agreed' : 'Submitted'} budget change ${number} of job ${job.number}, ${told(lines, company.currency)}: ${said.reason}`,
      subjects: [['job', jobId]],
      after: { ...said, lines, state: agreed ? 'agreed' : 'pending' },
    });
    return { id, number };
  },
});

const checkMayAgree = ({ actor }: Work): void => {
  const barred = notPermitted(actor, 'agree budget changes');
  if (barred !== undefined) throw new Refused(barred.refusals);
};

const changeRef = { changeId: z.number().int(), version: z.number().int() };

/** A change that is still to be agreed. */
async function pendingOf(work: Work, changeId: number, version: number): Promise<BudgetChange> {
  const change = found(await work.trx('budgetChange').where({ id: changeId }).first(), 'This change');
  sameVersion(change, version, `Budget change ${change.number}`);
  if (change.state !== 'pending')
    refuse(
      'change.decided',
      `Budget change ${change.number} is already ${change.state === 'dropped' ? 'withdrawn' : change.state}. Enter a new change instead.`,
    );
  return change;
}

/** Puts a change right that is still to be agreed. */
export const changeBudgetChange = defineAction({
  name: 'changeBudgetChange',
  right: 'write budget changes',
  input: z.object({ once, ...changeRef, ...budgetChangeFields.shape }),
  run: async (work, { once: _, changeId, version, lines, ...said }) => {
    const { trx, audit } = work;
    const before = await pendingOf(work, changeId, version);
    const job = await jobOf(work, before.jobId);
    await checkChange(work, job, { lines, day: said.day });
    const was = await linesOf(trx, changeId);
    await trx('budgetChangeLine').where({ changeId }).delete();
    await writeLines(trx, changeId, lines);
    await trx('budgetChange')
      .where({ id: changeId })
      .update({ ...said, version: version + 1 });
    await audit({
      words: `Changed budget change ${before.number} of job ${job.number}`,
      subjects: [['job', job.id]],
      before: { ...before, lines: was },
      after: { ...before, ...said, lines },
    });
  },
});

/** Agrees to a change: from its day on it counts. */
export const agreeBudgetChange = defineAction({
  name: 'agreeBudgetChange',
  right: 'agree budget changes',
  input: z.object({ once, ...changeRef }),
  run: async (work, { changeId, version }) => {
    const { trx, company, audit } = work;
    const change = await pendingOf(work, changeId, version);
    const job = await jobOf(work, change.jobId);
    const lines = await linesOf(trx, changeId);
    await checkChange(work, job, { lines, day: change.day });
    await agree(work, change, lines);
    await trx('budgetChange')
      .where({ id: changeId })
      .update({ version: version + 1 });
    await audit({
      words: `Agreed budget change ${change.number} of job ${job.number}, ${told(lines, company.currency)}: ${change.reason}`,
      subjects: [['job', job.id]],
      after: { lines },
    });
  },
});

/** Drops a change that is not agreed; its number stays taken. */
export const dropBudgetChange = defineAction({
  name: 'dropBudgetChange',
  right: 'write budget changes',
  input: z.object({ ...changeRef }),
  run: async (work, { changeId, version }) => {
    const { trx, actor, today, audit } = work;
    const change = await pendingOf(work, changeId, version);
    if (change.personId !== actor.id && !may(actor, 'agree budget changes'))
      refuse('change.others', `Only the author or the job lead can withdraw budget change ${change.number}.`);
    await trx('budgetChange')
      .where({ id: changeId })
      .update({ state: 'dropped', decidedBy: actor.id, decidedOn: today, version: version + 1 });
    await audit({
      words: `Withdrew budget change ${change.number}: ${change.reason}`,
      subjects: [['job', change.jobId]],
    });
  },
});

/** Says how a cost code ends, in the place of what is planned, and how much of it is done; what says neither ends that. */
export const setCompletion = defineAction({
  name: 'setCompletion',
  right: 'write budget changes',
  input: z.object({ once, jobId: z.number().int(), ...completionFields.shape }),
  run: async (work, { once: _, jobId, costCodeId, amount, done, reason }) => {
    const { trx, actor, today, now, company, audit } = work;
    const job = await jobOf(work, jobId);
    if (isClosed(job)) throw new Refused([closedRefusal(job.number)]);
    const code = found(await trx('costCode').where({ id: costCodeId }).first(), 'This cost code');
    const [before] = await trx('completion').where({ jobId, costCodeId }).orderBy('id', 'desc').limit(1);
    const said = { jobId, costCodeId, amount, done, reason };
    await trx('completion').insert({ ...said, personId: actor.id, day: today, at: now });
    const ends = amount === null ? 'back to the calculated figure' : `to ${formatMoney(amount, company.currency)}`;
    const share = done === null ? '' : `, ${done / 100} % complete`;
    await audit({
      words: `Set cost at completion of ${code.code} ${code.name}, job ${job.number}, ${ends}${share}: ${reason}`,
      subjects: [['job', jobId]],
      before: { amount: before?.amount ?? null, done: before?.done ?? null },
      after: { amount, done },
    });
  },
});

/** Lets a cost code pass its budget by as much as it does now, for a reason; when it passes it by more, it is asked again. */
export const acceptOverspend = defineAction({
  name: 'acceptOverspend',
  right: 'agree budget changes',
  input: z.object({
    once,
    jobId: z.number().int(),
    costCodeId: z.number().int(),
    /** By how much it passed its budget when this was decided. */
    over: minorSchema.refine((o) => o > 0, '${code.code} ${code.name} is not over budget.'),
    reason: text(300, 'Give a reason for accepting the overspend.'),
  }),
  run: async (work, { once: _, jobId, costCodeId, over, reason }) => {
    const { trx, actor, today, now, company, audit } = work;
    const job = await jobOf(work, jobId);
    const code = found(await trx('costCode').where({ id: costCodeId }).first(), 'This cost code');
    const stands = await trx('codeSum').where({ jobId, costCodeId }).first('budget', 'forecast');
    if (stands === undefined || stands.forecast - stands.budget !== over)
      refuse('over.moved', `The overspend on ${code.code} ${code.name} has changed. Refresh and decide again.`);
    await trx('letBe').insert({ jobId, costCodeId, over, reason, personId: actor.id, day: today, at: now });
    await audit({
      words: `Accepted ${code.code} ${code.name} of job ${job.number} going ${formatMoney(over, company.currency)} over budget: ${reason}`,
      subjects: [['job', jobId]],
      after: { over },
    });
  },
});

/** Keeps a few words beside the budget of a cost code. */
export const noteBudget = defineAction({
  name: 'noteBudget',
  right: 'write budget changes',
  input: z.object({ jobId: z.number().int(), costCodeId: z.number().int(), words: budgetNoteField }),
  run: async (work, { jobId, costCodeId, words }) => {
    const { trx, audit } = work;
    const job = await jobOf(work, jobId);
    const code = found(await trx('costCode').where({ id: costCodeId }).first(), 'This cost code');
    const where = { jobId, costCodeId };
    const before = await trx('budgetNote').where(where).first('words');
    await trx('budgetNote').where(where).delete();
    if (words !== '') await trx('budgetNote').insert({ ...where, words });
    await audit({
      words: `Changed budget note on ${code.code} ${code.name} of job ${job.number}: ${words || '(empty)'}`,
      subjects: [['job', jobId]],
      before: { words: before?.words ?? '' },
      after: { words },
    });
  },
});
