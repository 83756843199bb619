import type { Day } from '@/core/calendar/workdays';
import type { Minor } from '@/core/money/money';
import type { Named } from '@/core/records/typed';
import type { LadderStep } from '@/core/signoff/ladder';
import type { BuyingRule } from '@/core/signoff/rules';
import { nobodyFor } from '@/core/signoff/staffing';
import type { SignerText } from '@/core/records/signoff';
import { loadCompany, loadCostCodes } from '@/store/company';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { whereIn, rowsOf } from '@/store/rows';
import { loadLadder, loadRules, loadSignatories, loadStaff } from '@/store/signoff/ladder';
import { permit } from '../permit';

/** A step with the things it speaks of, as its form shows it. */
export type StepView = Omit<LadderStep, 'costCodeId' | 'supplierId' | 'signers'> & {
  readonly costCode: Named | null;
  readonly supplier: Named | null;
  readonly signers: readonly SignerText[];
  /** Why nobody could sign it as things are; empty where somebody can. */
  readonly stuck: string;
};

export type DeputyView = {
  readonly id: number;
  readonly person: string;
  readonly deputy: string;
  readonly fromDay: Day;
  readonly toDay: Day;
};

export type LadderView = {
  readonly version: number;
  readonly currency: string;
  readonly tolerance: { readonly share: number; readonly most: Minor };
  readonly steps: readonly StepView[];
  readonly rules: readonly BuyingRule[];
  readonly people: readonly {
    readonly id: number;
    readonly name: string;
    readonly ownLimit: Minor;
    readonly version: number;
  }[];
  readonly deputies: readonly DeputyView[];
};

/** The ladder, the rules of buying, how far people may sign for themselves, and who signs for whom. */
export async function loadLadderPage(db: Db, person: Person, today: Day): Promise<LadderView> {
  permit(person, 'manage people');
  const company = await loadCompany(db);
  const ladder = await loadLadder(db);
  const staff = await loadStaff(db);
  const codes = new Map((await loadCostCodes(db)).map((c) => [c.id, { id: c.id, number: c.code, name: c.name }]));
  const supplierIds = ladder.flatMap((s) => s.supplierId ?? []);
  const suppliers = new Map((await whereIn(db, 'supplier', 'id', supplierIds)).map((s) => [s.id, s]));
  const people = await db('person').orderBy('name').select('id', 'name', 'ownLimit', 'version', 'active');
  const names = new Map(people.map((p) => [p.id, p.name]));
  const may = new Set((await loadSignatories(db)).map((p) => p.id));
  const supplier = (id: number): Named => ({ id, number: '', name: suppliers.get(id)?.name ?? '' });
  return {
    version: company.version,
    currency: company.currency,
    tolerance: { share: company.signToleranceShare, most: company.signToleranceMost },
    steps: ladder.map(({ costCodeId, supplierId, signers, ...step }) => ({
      costCode: codes.get(costCodeId ?? 0) ?? null,
      supplier: supplierId === null ? null : supplier(supplierId),
      signers: signers.map((s): SignerText =>
        s.kind === 'person'
          ? { kind: s.kind, person: { id: s.personId, number: '', name: names.get(s.personId) ?? '' } }
          : s,
      ),
      stuck: nobodyFor({ signers }, staff) ?? '',
      ...step,
    })),
    rules: await loadRules(db),
    people: people
      .filter((p) => may.has(p.id))
      .map(({ id, name, ownLimit, version }) => ({ id, name, ownLimit, version })),
    deputies: await listDeputies(db, today),
  };
}

/** Who signs for whom today or later; of one person, or of everybody. */
async function listDeputies(db: Db, today: Day, personId?: number): Promise<DeputyView[]> {
  const query = db('deputy as d')
    .join('person as p', 'p.id', 'd.personId')
    .join('person as q', 'q.id', 'd.deputyId')
    .where('d.toDay', '>=', today)
    .orderBy('d.fromDay');
  if (personId !== undefined) void query.where('d.personId', personId);
  return await rowsOf<DeputyView>(query.select('d.id', 'd.fromDay', 'd.toDay', { person: 'p.name', deputy: 'q.name' }));
}

/** Whom a person named to sign for them. */
export async function loadOwnDeputies(db: Db, person: Person, today: Day): Promise<DeputyView[]> {
  permit(person, 'sign orders');
  return listDeputies(db, today, person.id);
}
