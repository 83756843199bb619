import { LIVE } from '@/core/jobs/states';
import { groupBy } from '@/core/group';
import { rolesWith } from '@/core/people/rights';
import type { LadderStep, Signer } from '@/core/signoff/ladder';
import { USUAL_RULES, type BuyingRule } from '@/core/signoff/rules';
import type { Signatory } from '@/core/signoff/signing';
import type { Staff } from '@/core/signoff/staffing';
import type { Db } from '../db';
import type { LadderSignerRow } from '../tables';

/** The company's rules of buying: as it set them, and as they usually are where it said nothing. */
export async function loadRules(db: Db): Promise<BuyingRule[]> {
  const own = new Map((await db('buyingRule')).map((r) => [r.kind, r]));
  return USUAL_RULES.map((rule) => own.get(rule.kind) ?? rule);
}

const signerOf = ({ kind, personId, role }: LadderSignerRow): Signer => {
  if (kind === 'person' && personId !== null) return { kind, personId };
  return kind === 'role' && role !== null ? { kind, role } : { kind: 'lead' };
};

/** The ladder as it stands, in the order in which it is signed. */
export async function loadLadder(db: Db): Promise<LadderStep[]> {
  const steps = await db('ladderStep').where({ gone: 0 }).orderBy('place');
  const signers = groupBy(await db('ladderSigner').orderBy('place'), (s) => s.stepId);
  return steps.map(({ place: _, gone: __, onRule, ...step }) => ({
    ...step,
    onRule: onRule === 1,
    signers: (signers.get(step.id) ?? []).map(signerOf),
  }));
}

/** Everybody who may sign orders off. */
export async function loadSignatories(db: Db): Promise<Signatory[]> {
  const people = await db('person').where({ active: 1 }).orderBy('name').select('id', 'name');
  const roles = groupBy(await db('personRole'), (r) => r.personId);
  const may = new Set(rolesWith('sign orders'));
  return people
    .map((p) => ({ ...p, roles: (roles.get(p.id) ?? []).map((r) => r.role) }))
    .filter((p) => p.roles.some((r) => may.has(r)));
}

/** Who is there to sign, and who leads live jobs. */
export async function loadStaff(db: Db): Promise<Staff> {
  const leads = (await db('job as j')
    .join('person as p', 'p.id', 'j.leadId')
    .where('j.state', LIVE)
    .distinct('p.id', 'p.name')) as Staff['leads'];
  return { people: await loadSignatories(db), leads };
}
