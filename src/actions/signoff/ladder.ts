import { z } from 'zod';
import { deputyFields, ladderFields, ownLimitField, ruleFields, type StepFields } from '@/core/records/signoff';
import type { Signer } from '@/core/signoff/ladder';
import { deputyFault } from '@/core/signoff/deputies';
import { nobodyFor } from '@/core/signoff/staffing';
import { refusal } from '@/core/result';
import { insertMany, insertOne } from '@/store/rows';
import { loadLadder, loadRules, loadSignatories, loadStaff } from '@/store/signoff/ladder';
import { defineAction, found, once, Refused, refuse, sameVersion, type Work } from '../action';

const COMPANY = [['company', 1]] as const;

const nextVersion = ({ trx, company }: Work) =>
  trx('company')
    .where({ id: 1 })
    .update({ version: company.version + 1 });

/** A ladder that cannot be climbed, and a rule that nobody signs for, are told when they are saved. */
async function checkStaffed(work: Work): Promise<void> {
  const ladder = await loadLadder(work.trx);
  const staff = await loadStaff(work.trx);
  const faults = ladder.flatMap((step, k) => {
    const why = nobodyFor(step, staff);
    return why === undefined ? [] : [refusal('ladder.nobody', `Step ${k + 1}: ${why}`, `steps.${k}`)];
  });
  if (faults.length > 0) throw new Refused(faults);
  const asks = (await loadRules(work.trx)).find((r) => r.answer === 'signOff');
  if (asks !== undefined && !ladder.some((s) => s.onRule))
    refuse(
      'ladder.rules',
      'A rule needs sign-off, but no step of the ladder is signed when a rule needs it. Add such a step, or set the rule to warn.',
    );
}

const columnsOf = ({ signers: _, id: __, ...when }: StepFields) => ({ ...when, onRule: when.onRule ? 1 : 0 });

const signerRow = (stepId: number, place: number, signer: Signer) => ({
  ...{ stepId, place, kind: signer.kind },
  personId: signer.kind === 'person' ? signer.personId : null,
  role: signer.kind === 'role' ? signer.role : null,
});

/** Sets the ladder: its steps in sequence. Steps that stay keep what was signed by them. */
export const saveLadder = defineAction({
  name: 'saveLadder',
  right: 'manage people',
  input: z.object({ once, version: z.number().int(), ...ladderFields.shape }),
  run: async (work, { version, steps, signToleranceShare, signToleranceMost }) => {
    const { trx, company, audit } = work;
    sameVersion(company, version, 'The ladder');
    const before = await loadLadder(trx);
    const known = new Set(before.map((s) => s.id));
    await trx('ladderStep').where({ gone: 0 }).update({ gone: 1 });
    for (const [place, step] of steps.entries()) {
      const row = { ...columnsOf(step), place, gone: 0 };
      const kept = step.id !== undefined && known.has(step.id);
      const id = kept ? (step.id as number) : await insertOne(trx, 'ladderStep', row);
      if (kept) await trx('ladderStep').where({ id }).update(row);
      await trx('ladderSigner').where({ stepId: id }).delete();
      await insertMany(
        trx,
        'ladderSigner',
        step.signers.map((s, k) => signerRow(id, k, s)),
      );
    }
    await checkStaffed(work);
    await trx('company').where({ id: 1 }).update({ signToleranceShare, signToleranceMost });
    await nextVersion(work);
    await audit({
      words: `Changed the sign-off ladder to ${steps.length} ${steps.length === 1 ? 'step' : 'steps'}`,
      subjects: COMPANY,
      before: { steps: before, tolerance: [company.signToleranceShare, company.signToleranceMost] },
      after: { steps: await loadLadder(trx), tolerance: [signToleranceShare, signToleranceMost] },
    });
  },
});

/** Sets what the company watches when something is bought, and what it does then. */
export const saveRules = defineAction({
  name: 'saveRules',
  right: 'manage people',
  input: z.object({ once, version: z.number().int(), ...ruleFields.shape }),
  run: async (work, { version, rules }) => {
    const { trx, company, audit } = work;
    sameVersion(company, version, 'The rules');
    const before = await loadRules(trx);
    await trx('buyingRule').delete();
    await insertMany(trx, 'buyingRule', rules);
    await checkStaffed(work);
    await nextVersion(work);
    await audit({
      words: 'Changed buying rules',
      subjects: COMPANY,
      before: { rules: before },
      after: { rules: await loadRules(trx) },
    });
  },
});

/** Says up to what a person may sign for an order that they wrote on. */
export const saveOwnLimit = defineAction({
  name: 'saveOwnLimit',
  right: 'manage people',
  input: z.object({ personId: z.number().int(), version: z.number().int(), ownLimit: ownLimitField }),
  run: async ({ trx, audit }, { personId, version, ownLimit }) => {
    const person = found(await trx('person').where({ id: personId }).first(), 'This person');
    sameVersion(person, version, person.name);
    await trx('person')
      .where({ id: personId })
      .update({ ownLimit, version: version + 1 });
    await audit({
      words: `Changed ${person.name}’s own-order limit`,
      subjects: [['person', personId]],
      before: { ownLimit: person.ownLimit },
      after: { ownLimit },
    });
  },
});

/** Names a deputy for some days: oneself, or anybody for who manages people. */
export const nameDeputy = defineAction({
  name: 'nameDeputy',
  right: 'sign orders',
  input: z.object({ once, ...deputyFields.shape }),
  run: async ({ trx, actor, audit }, { once: _, ...fresh }) => {
    if (fresh.personId !== actor.id && !actor.roles.includes('administrator'))
      refuse('deputy.others', 'You can only add a deputy for yourself. Ask your administrator for others.', 'personId');
    const people = new Map((await loadSignatories(trx)).map((p) => [p.id, p.name]));
    if (!people.has(fresh.personId))
      refuse('deputy.who', 'This person can’t sign orders. Choose someone who can.', 'personId');
    if (!people.has(fresh.deputyId)) refuse('deputy.who', 'A deputy must be someone who can sign orders.', 'deputyId');
    const fault = deputyFault(fresh, await trx('deputy').where('toDay', '>=', fresh.fromDay));
    if (fault !== undefined) throw new Refused([fault]);
    const id = await insertOne(trx, 'deputy', fresh);
    await audit({
      words: `${people.get(fresh.deputyId)} signs for ${people.get(fresh.personId)} from ${fresh.fromDay} to ${fresh.toDay}`,
      subjects: [
        ['person', fresh.personId],
        ['person', fresh.deputyId],
      ],
      after: fresh,
    });
    return { id };
  },
});

/** Ends that somebody signs for another. */
export const dropDeputy = defineAction({
  name: 'dropDeputy',
  right: 'sign orders',
  input: z.object({ id: z.number().int() }),
  run: async ({ trx, actor, audit }, { id }) => {
    const row = found(await trx('deputy').where({ id }).first(), 'This deputy');
    if (row.personId !== actor.id && !actor.roles.includes('administrator'))
      refuse('deputy.others', 'You can only end your own deputy. Ask your administrator for others.');
    await trx('deputy').where({ id }).delete();
    await audit({
      words: 'Ended a deputy',
      subjects: [
        ['person', row.personId],
        ['person', row.deputyId],
      ],
      before: row,
    });
  },
});
