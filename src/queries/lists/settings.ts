import { rowsOf } from '@/store/rows';
import type { Day } from '@/core/calendar/workdays';
import { tellChanges, type ToldChange } from '@/core/history/tell';
import { ROLE_NAMES } from '@/core/people/rights';
import { REASON_NAMES } from '@/core/receiving/reasons';
import { TAX_CATEGORY_NAMES } from '@/core/records/settings';
import { hasShare, RULE_ANSWER_NAMES, RULE_NAMES, type BuyingRule } from '@/core/signoff/rules';
import { whenAsked, whoSigns } from '@/core/signoff/words';
import { loadCompany } from '@/store/company';
import type { DayOff, ExchangeRate, MailWords } from '@/store/tables';
import { loadLadderPage, type StepView } from '../signoff/ladder';
import { listPeople, type PersonRow } from '../people/people';
import { loadReviewPoints } from '../orders/reviews';
import {
  loadCodesPage,
  loadPlacesPage,
  loadTaxesPage,
  loadReasonsPage,
  loadUnitsPage,
  type CodeRow,
  type PlaceRow,
  type ReasonSetting,
  type TaxRow,
  type UnitRow,
} from '../company/settings';
import { day, everyPage, list, text } from './list';

/** A list that is short enough to be had in one piece. */
const whole = <R>(look: () => Promise<readonly R[]>) => everyPage(async () => ({ rows: await look() }));
const yes = (is: boolean) => text(is ? 'yes' : 'no');
const hundredths = (n: number) => ({ scaled: n, places: 2 });

/** Every field of the company, as it stands. */
export const company = list<ToldChange>('manage people', 'Company', ({ db, currency }) => ({
  columns: [
    { head: 'Setting', cell: (r) => text(r.what) },
    { head: 'Value', cell: (r) => text(r.to) },
  ],
  pages: whole(async () => {
    const codes = new Map((await db('costCode')).map((c) => [c.id, `${c.code} ${c.name}`]));
    const look = {
      own: currency,
      document: currency,
      name: (_: string, id: number) => codes.get(id),
      line: () => undefined,
    };
    return Object.entries(await loadCompany(db)).flatMap(([field, to]) => tellChanges({ [field]: { to } }, look));
  }),
}));

export const daysOff = list<DayOff>('manage people', 'Non-working days', ({ db }) => ({
  columns: [
    { head: 'Date', cell: (d) => day(d.day) },
    { head: 'Reason', cell: (d) => text(d.name) },
  ],
  pages: whole(() => db('dayOff').orderBy('day')),
}));

export const people = list<PersonRow & { readonly ownLimit: number }>(
  'manage people',
  'People',
  ({ db, person, currency }) => ({
    columns: [
      { head: 'Name', cell: (p) => text(p.name) },
      { head: 'Email', cell: (p) => text(p.email) },
      { head: 'Roles', cell: (p) => text(p.roles.map((r) => ROLE_NAMES[r]).join(', ')) },
      { head: 'Has access', cell: (p) => yes(p.active === 1) },
      { head: `Own-order limit ${currency}`, cell: (p) => hundredths(p.ownLimit) },
    ],
    pages: whole(async () => {
      const limits = new Map((await db('person').select('id', 'ownLimit')).map((p) => [p.id, p.ownLimit]));
      return (await listPeople(db, person)).map((p) => ({ ...p, ownLimit: limits.get(p.id) ?? 0 }));
    }),
  }),
);

type Step = StepView & { readonly place: number; readonly signed: string; readonly when: string };

export const ladder = list<Step>('manage people', 'Ladder', ({ db, person, today, currency }) => ({
  columns: [
    { head: 'Step', cell: (s) => ({ whole: s.place }) },
    { head: 'Signed by', cell: (s) => text(s.signed) },
    { head: 'When', cell: (s) => text(s.when) },
  ],
  pages: whole(async () =>
    (await loadLadderPage(db, person, today)).steps.map((s, k) => ({
      ...s,
      place: k + 1,
      signed: s.signers
        .map((by) =>
          by.kind === 'person'
            ? (by.person?.name ?? '')
            : by.kind === 'role'
              ? whoSigns(by, { person: String })
              : 'the job lead',
        )
        .join(' and '),
      when: whenAsked(
        { ...s, costCodeId: s.costCode?.id ?? null, supplierId: s.supplier?.id ?? null },
        { currency, code: () => `${s.costCode?.number} ${s.costCode?.name}`, supplier: () => s.supplier?.name ?? '' },
      ),
    })),
  ),
}));

export const rules = list<BuyingRule>('manage people', 'Buying rules', ({ db, person, today }) => ({
  columns: [
    { head: 'Rule', cell: (r) => text(RULE_NAMES[r.kind]) },
    { head: 'Beyond %', cell: (r) => (hasShare(r.kind) ? hundredths(r.share) : undefined) },
    { head: 'Effect', cell: (r) => text(RULE_ANSWER_NAMES[r.answer]) },
  ],
  pages: whole(async () => (await loadLadderPage(db, person, today)).rules),
}));

export const costCodes = list<CodeRow>('manage people', 'Cost codes', ({ db, person }) => ({
  columns: [
    { head: 'Cost code', cell: (c) => text(c.code) },
    { head: 'Name', cell: (c) => text(c.name) },
    { head: 'Jobs', cell: (c) => ({ whole: c.jobs }) },
    { head: 'In use', cell: (c) => yes(c.gone === 0) },
  ],
  pages: whole(async () => (await loadCodesPage(db, person)).codes),
}));

export const taxes = list<TaxRow>('manage people', 'Taxes', ({ db, person }) => ({
  columns: [
    { head: 'Tax', cell: (t) => text(t.name) },
    { head: 'Category', cell: (t) => text(t.category) },
    { head: 'Effect', cell: (t) => text(TAX_CATEGORY_NAMES[t.category]) },
    { head: 'Rate %', cell: (t) => hundredths(t.rate) },
    { head: 'Recoverable %', cell: (t) => hundredths(t.recoverable) },
    { head: 'In use', cell: (t) => yes(t.gone === 0) },
  ],
  pages: whole(() => loadTaxesPage(db, person)),
}));

export const places = list<PlaceRow>('manage people', 'Locations', ({ db, person }) => ({
  columns: [
    { head: 'Location', cell: (p) => text(p.name) },
    { head: 'Address', cell: (p) => text(p.address) },
    { head: 'Instructions', cell: (p) => text(p.instructions) },
    { head: 'In use', cell: (p) => yes(p.gone === 0) },
  ],
  pages: whole(() => loadPlacesPage(db, person)),
}));

export const reasons = list<ReasonSetting>('manage people', 'Delivery reasons', ({ db, person }) => ({
  columns: [
    { head: 'Reason', cell: (r) => text(r.name) },
    { head: 'Effect', cell: (r) => text(REASON_NAMES[r.does]) },
    { head: 'Times used', cell: (r) => ({ whole: r.given }) },
    { head: 'In use', cell: (r) => yes(r.gone === 0) },
  ],
  pages: whole(() => loadReasonsPage(db, person)),
}));

export const units = list<UnitRow>('manage people', 'Units', ({ db, person }) => ({
  columns: [
    { head: 'Code', cell: (u) => text(u.code) },
    { head: 'Unit', cell: (u) => text(u.name) },
    { head: 'Short', cell: (u) => text(u.short) },
    { head: 'In use', cell: (u) => yes(u.offered) },
  ],
  pages: whole(() => loadUnitsPage(db, person)),
}));

export const reviewLists = list<readonly [kind: string, words: string]>(
  'manage people',
  'Pre-start checks',
  ({ db, person }) => ({
    columns: [
      { head: 'Job type', cell: ([kind]) => text(kind) },
      { head: 'Pre-start check', cell: ([, words]) => text(words) },
    ],
    pages: whole(async () =>
      Object.entries(await loadReviewPoints(db, person)).flatMap(([kind, points]) =>
        points.map((p) => [kind, p] as const),
      ),
    ),
  }),
);

export const mailWords = list<MailWords & { readonly supplier: string | null }>(
  'keep suppliers',
  'Email wording',
  ({ db }) => ({
    columns: [
      { head: 'Email', cell: (w) => text(w.kind) },
      { head: 'Supplier', cell: (w) => text(w.supplier ?? 'all') },
      { head: 'Subject', cell: (w) => text(w.subject) },
      { head: 'Text', cell: (w) => text(w.body) },
    ],
    pages: whole(
      async () =>
        await rowsOf<MailWords & { readonly supplier: string | null }>(
          db('mailWords as w')
            .leftJoin('supplier as s', 's.id', 'w.supplierId')
            .orderBy('w.id')
            .select('w.*', { supplier: 's.name' }),
        ),
    ),
  }),
);

export const rates = list<ExchangeRate>('see money', 'Exchange rates', ({ db, currency }) => ({
  columns: [
    { head: 'Currency', cell: (r) => text(r.currency) },
    { head: 'From', cell: (r) => day(r.day as Day) },
    { head: `${currency} for one`, cell: (r) => text(r.rate) },
  ],
  pages: whole(() => db('exchangeRate').orderBy('currency').orderBy('day')),
}));
