import type { LostTax } from '@/core/money/tax';
import { rowsOf, rowOf } from '@/store/rows';
import { type JobKind, type JobState } from '@/core/jobs/states';
import type { Per } from '@/core/boms/bom';
import type { Day } from '@/core/calendar/workdays';
import type { Minor, UnitPrice } from '@/core/money/money';
import { STAGES, type Stage } from '@/core/tab/stages';
import { addLevels, type Level } from '@/core/tab/sums';
import type { QuoteLineKind } from '@/core/quotes/rows';
import type { QuoteState } from '@/core/quotes/winning';
import { loadCostCodes, withTaxes } from '@/store/company';
import type { Db } from '@/store/db';
import type { DocumentKind } from '@/store/happening';
import { loadQuoteSums, type QuoteSums } from '@/store/quotes';
import { loadOpenPoints } from '@/store/reviews';
import type { CostCode } from '@/store/tables';
import type { Person } from '@/store/people';
import { loadLevels, loadLevelsOn } from '@/store/levels';
import { permit } from '../permit';
import { countOf, QUOTE_PAGE } from '../sql';

export type JobHead = {
  readonly id: number;
  readonly number: string;
  readonly name: string;
  readonly kind: JobKind;
  readonly state: JobState;
  readonly customer: string;
  readonly lead: string;
  readonly site: string;
  readonly startsOn: Day | null;
  readonly dueOn: Day | null;
  readonly dueWords: string;
  readonly onHold: string | null;
  readonly version: number;
  readonly onRail: boolean;
  readonly counts: {
    readonly needs: number;
    readonly orders: number;
    /** Lines that are left to buy today. */
    readonly open: number;
    /** Points that are not looked over before work starts, unless that was waived. */
    readonly review: number;
  };
  readonly quote: {
    readonly id: number;
    readonly number: string;
    readonly state: QuoteState;
    readonly version: number;
    readonly lines: number;
  } | null;
};

/** A job's head; its counts of a day, or of today. */
export async function findJob(db: Db, person: Person, number: string, on?: Day): Promise<JobHead | undefined> {
  permit(person, 'see jobs');
  const job = await rowOf<Omit<JobHead, 'onRail' | 'counts' | 'quote'>>(
    db('job as j')
      .join('customer as c', 'c.id', 'j.customerId')
      .join('person as p', 'p.id', 'j.leadId')
      .where({ 'j.number': number })
      .first(
        'j.id',
        'j.number',
        'j.name',
        'j.kind',
        'j.state',
        'j.site',
        'j.onHold',
        'j.version',
        'j.startsOn',
        'j.dueOn',
        'j.dueWords',
        {
          customer: 'c.name',
          lead: 'p.name',
        },
      ),
  );
  if (job === undefined) return undefined;
  const count = async (sql: string, ...bound: (number | string)[]) =>
    (await rowsOf<{ n: number }>(db.raw(sql, bound)))[0]?.n ?? 0;
  const until = on ?? '9999';
  const quote = await rowOf<Omit<NonNullable<JobHead['quote']>, 'lines'>>(
    db('quote').where({ jobId: job.id }).orderBy('id', 'desc').first('id', 'number', 'state', 'version'),
  );
  return {
    ...job,
    onRail: (await db('openJob').where({ personId: person.id, jobId: job.id }).first('jobId')) !== undefined,
    counts: {
      needs: await count('select count(*) n from need where job_id = ? and added_on <= ?', job.id, until),
      orders: await count(
        'select count(distinct l.order_id) n from split s join order_line l on l.id = s.line_id join purchase_order o on o.id = l.order_id where s.job_id = ? and o.made_on <= ?',
        job.id,
        until,
      ),
      open: await count('select count(*) n from need where job_id = ? and open > 0', job.id),
      review: (await loadOpenPoints(db, [job.id])).reduce((sum, o) => sum + o.points.length, 0),
    },
    quote:
      quote === undefined
        ? null
        : {
            ...quote,
            lines: (
              (await db('quoteLine').where({ quoteId: quote.id }).count({ n: '*' }).first()) as unknown as { n: number }
            ).n,
          },
  };
}

export type TabRow = Level & { readonly code: CostCode };
export type Tab = { readonly rows: readonly TabRow[]; readonly whole: Level };

/** A job's tab by cost code, now or at the end of an earlier day. */
export async function loadTab(db: Db, person: Person, jobId: number, on?: Day): Promise<Tab> {
  permit(person, 'see money');
  const levels = on === undefined ? await loadLevels(db, [jobId]) : await loadLevelsOn(db, jobId, on);
  const codes = new Map((await loadCostCodes(db)).map((c) => [c.id, c]));
  const rows = levels.flatMap((l) => {
    const code = codes.get(l.costCodeId);
    const empty = l.budget === 0 && STAGES.every((s) => l.amounts[s] === 0);
    return code === undefined || empty ? [] : [{ code, budget: l.budget, amounts: l.amounts }];
  });
  return { rows: rows.sort((a, b) => a.code.code.localeCompare(b.code.code)), whole: addLevels(rows) };
}

export type PostingRow = {
  readonly id: number;
  readonly day: Day;
  readonly stage: Stage;
  readonly amount: Minor;
  readonly event: string;
  readonly what: string;
  readonly who: string;
  readonly document: DocumentKind;
  readonly documentId: number;
  readonly documentNumber: string;
  /** The order that the document belongs to. */
  readonly order: string | null;
};

export type Figure = { readonly costCodeId?: number; readonly stage?: Stage; readonly on?: Day };

const POSTINGS_SHOWN = 300;

/** The postings that a figure of a tab is the sum of, newest first, each with its document. */
export async function loadPostings(
  db: Db,
  person: Person,
  jobId: number,
  figure: Figure,
): Promise<{ rows: PostingRow[]; sum: Minor; count: number }> {
  permit(person, 'see money');
  const chosen = () => {
    const query = db('posting as p').where('p.jobId', jobId);
    if (figure.costCodeId !== undefined) void query.where('p.costCodeId', figure.costCodeId);
    if (figure.stage !== undefined) void query.where('p.stage', figure.stage);
    if (figure.on !== undefined) void query.where('p.day', '<=', figure.on);
    return query;
  };
  const [total] = (await chosen().sum({ sum: 'p.amount' }).count({ count: '*' })) as {
    sum: Minor | null;
    count: number;
  }[];
  const rows = await rowsOf<PostingRow>(
    chosen()
      .join('tabLine as l', 'l.id', 'p.tabLineId')
      .join('person as who', 'who.id', 'p.personId')
      .leftJoin('receipt as r', (j) => j.on('r.id', 'p.documentId').andOnVal('p.document', 'receipt'))
      .leftJoin('invoice as i', (j) => j.on('i.id', 'p.documentId').andOnVal('p.document', 'invoice'))
      .leftJoin('quote as q', (j) => j.on('q.id', 'p.documentId').andOnVal('p.document', 'quote'))
      .leftJoin('purchaseOrder as o', (j) =>
        j.on(
          db.raw(
            "o.id = case p.document when 'order' then p.document_id when 'receipt' then r.order_id when 'invoice' then i.order_id end",
          ),
        ),
      )
      .orderBy('p.day', 'desc')
      .orderBy('p.id', 'desc')
      .limit(POSTINGS_SHOWN)
      .select(
        'p.id',
        'p.day',
        'p.stage',
        'p.amount',
        'p.event',
        'p.document',
        'p.documentId',
        { who: 'who.name', order: 'o.number', what: 'l.words' },
        db.raw(
          "case p.document when 'order' then o.number when 'receipt' then r.number when 'invoice' then i.number when 'quote' then q.number when 'supplier' then 'supplier' else 'buy list' end as document_number",
        ),
      ),
  );
  return { rows, sum: total?.sum ?? (0 as Minor), count: total?.count ?? 0 };
}

export type QuoteLineRow = {
  id: number;
  place: number;
  kind: QuoteLineKind;
  itemId: number | null;
  number: string | null;
  description: string;
  quantity: number;
  unit: string;
  cost: UnitPrice;
  price: UnitPrice | null;
  costCodeId: number;
  code: string;
  codeName: string;
  supplierId: number | null;
  supplier: string | null;
  neededOn: Day | null;
  optional: number;
  markup: number | null;
  per: Per;
  agreed: number | null;
  /** Whether its part may be bought; null for a line of words. */
  itemBought: number | null;
};
export type QuoteView = {
  readonly id: number;
  readonly number: string;
  readonly state: QuoteState;
  readonly wonBy: string | null;
  readonly wonOn: Day | null;
  readonly markedBy: string | null;
  /** What it says to the customer beside its lines. */
  readonly takes: string;
  readonly validUntil: Day | null;
  readonly words: string;
  /** For how many pieces its lines are written, and for which other numbers it is priced beside that. */
  readonly pieces: number | null;
  readonly alsoPieces: string;
  /** Who brought it to its state, and when; null as long as it was never moved. */
  readonly movedBy: string | null;
  readonly movedOn: Day | null;
  /** Why it is bought for before the customer said yes, and who took that upon them; null when it is not. */
  readonly early: string | null;
  /** The number of the quote that took its place. */
  readonly revisedAs: string | null;
  /** Every quote of the job, the latest first. */
  readonly all: readonly { readonly id: number; readonly number: string }[];
  readonly version: number;
  /** With the tax that buying them bears. */
  readonly rows: readonly (QuoteLineRow & { readonly tax: LostTax | null })[];
  /** How many lines stand before those. */
  readonly before: number;
  readonly whole: Omit<QuoteSums, 'budget' | 'codes'> & {
    readonly budget: readonly { readonly code: string; readonly name: string; readonly amount: Minor }[];
    readonly codes: readonly CodeSum[];
  };
};

/** What the lines of a quote on one cost code cost and are sold for. */
export type CodeSum = {
  readonly costCodeId: number;
  readonly code: string;
  readonly name: string;
  readonly cost: Minor;
  readonly price: Minor;
};

/** A job's quote, its latest unless another is asked for: a page of its lines, after a place, and what all come to. */
export async function loadQuote(
  db: Db,
  person: Person,
  jobId: number,
  after = 0,
  quoteId?: number,
): Promise<QuoteView | undefined> {
  permit(person, 'see money');
  const query = db('quote as q')
    .leftJoin('person as p', 'p.id', 'q.markedBy')
    .leftJoin('person as m', 'm.id', 'q.movedBy')
    .leftJoin('quote as r', 'r.id', 'q.revisedAs')
    .leftJoin('person as e', 'e.id', 'q.earlyBy')
    .where('q.jobId', jobId)
    .orderBy('q.id', 'desc');
  if (quoteId !== undefined) void query.where('q.id', quoteId);
  const quote = await rowOf<Omit<QuoteView, 'rows' | 'before' | 'whole' | 'all'>>(
    query.first(
      'q.id',
      'q.number',
      'q.state',
      'q.wonBy',
      'q.wonOn',
      'q.takes',
      'q.validUntil',
      'q.words',
      'q.pieces',
      'q.alsoPieces',
      'q.movedOn',
      'q.version',
      {
        markedBy: 'p.name',
        movedBy: 'm.name',
        revisedAs: 'r.number',
        early: db.raw("q.early_reason || ', ' || e.name"),
      } as never,
    ),
  );
  if (quote === undefined) return undefined;
  const all = await db('quote').where({ jobId }).orderBy('id', 'desc').select('id', 'number');
  const rows = await rowsOf<QuoteLineRow>(
    db('quoteLine as l')
      .join('costCode as c', 'c.id', 'l.costCodeId')
      .leftJoin('supplier as s', 's.id', 'l.supplierId')
      .leftJoin('item as i', 'i.id', 'l.itemId')
      .where({ quoteId: quote.id })
      .where('l.place', '>', after)
      .orderBy('l.place')
      .limit(QUOTE_PAGE)
      .select('l.id', 'l.place', 'l.kind', 'l.itemId', 'l.description', 'l.quantity', 'l.unit', 'l.cost', 'l.price')
      .select(
        'l.costCodeId',
        'l.supplierId',
        'l.neededOn',
        'l.optional',
        'l.markup',
        'l.per',

        'l.agreed',
        {
          itemBought: 'i.bought',
          code: 'c.code',
          codeName: 'c.name',
          supplier: 's.name',
          number: 'i.number',
        },
      ),
  );
  const { budget, codes: byCode, ...sums } = await loadQuoteSums(db, quote.id);
  const codes = new Map((await loadCostCodes(db)).map((c) => [c.id, c]));
  const opens = [...budget]
    .map(([id, amount]) => ({ code: codes.get(id)?.code ?? '', name: codes.get(id)?.name ?? '', amount }))
    .sort((one, other) => one.code.localeCompare(other.code));
  const costed = [...byCode]
    .map(([id, sum]) => ({ costCodeId: id, code: codes.get(id)?.code ?? '', name: codes.get(id)?.name ?? '', ...sum }))
    .sort((one, other) => one.code.localeCompare(other.code));
  const before = await countOf(db('quoteLine').where({ quoteId: quote.id }).where('place', '<=', after));
  return { ...quote, all, rows: await withTaxes(db, rows), before, whole: { ...sums, budget: opens, codes: costed } };
}
