import { taxNameOf } from '@/formats/taxes';
import { formatDay, plusDays, type Day } from '@/core/calendar/workdays';
import { add, formatAmount, formatMoney, formatPrice, minor, ZERO } from '@/core/money/money';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { eachOf } from '@/core/quotes/pieces';
import { counted } from '@/core/words';
import type { QuotePaper } from '@/formats/pdf/quote';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { permit } from '../permit';
import { loadSideBySide } from './sideBySide';

/** Gathers what stands on a quote for the customer: prices, and nothing of what they cost us. */
export async function loadQuotePaper(
  db: Db,
  person: Person,
  quoteId: number,
  today: Day,
): Promise<QuotePaper | undefined> {
  permit(person, 'see money');
  const quote = await db('quote').where({ id: quoteId }).first();
  const job = quote && (await db('job').where({ id: quote.jobId }).first());
  if (quote === undefined || job === undefined) return undefined;
  const company = await loadCompany(db);
  const { currency } = company;
  const customer = await db('customer').where({ id: job.customerId }).first('name');
  const lead = await db('person').where({ id: job.leadId }).first('name');
  const lines = await db('quoteLine').where({ quoteId }).orderBy('place');
  const day = (d: Day | null) => (d === null ? '' : formatDay(d, plusDays(today, -1000)));
  const taxName = await taxNameOf(company.country);
  const total = add(ZERO, ...lines.filter((l) => l.optional === 0).map((l) => l.priceNet ?? minor(0)));
  const others = ((await loadSideBySide(db, person, quoteId, today)) ?? []).filter((p) => p.pieces !== quote.pieces);
  return {
    number: quote.number,
    draft: quote.state === 'writing',
    size: company.paper,
    date: day(quote.movedOn ?? today),
    company,
    taxName,
    customer: customer?.name ?? '',
    job,
    pieces: quote.pieces === null ? '' : counted(quote.pieces, 'piece'),
    takes: quote.takes,
    validUntil: day(quote.validUntil),
    by: lead?.name ?? '',
    currency,
    lines: lines.map((l, k) => ({
      place: String(k + 1),
      description: l.description,
      optional: l.optional === 1,
      quantity: `${formatQuantity(l.quantity)} ${unitOf(l.unit).short}`.trim(),
      price: l.price === null ? '' : formatPrice(l.price, currency),
      net: l.priceNet === null ? 'included' : formatAmount(l.priceNet, currency),
    })),
    totals: [
      { label: `Total excl. ${taxName}`, amount: formatMoney(total, currency), strong: true },
      ...others.map(({ pieces, price }) => ({
        label: `For ${counted(pieces, 'piece')}, ${formatPrice(eachOf(price, pieces, currency), currency)} each`,
        amount: formatMoney(price, currency),
      })),
    ],
    words: quote.words,
  };
}
