import { MON_TO_FRI, plusDays, type Day } from '@/core/calendar/workdays';
import { hashPassword } from '@/actions/people/passwords';
import { importQuoteFile, keepQuoteFile } from '@/actions/quotes/importing';
import { moveQuote } from '@/actions/quotes/quotes';
import { winQuote } from '@/actions/quotes/winning';
import { saveBom } from '@/actions/items/boms';
import { openJob, openOnRail } from '@/actions/jobs/jobs';
import { chooseWork, planFromBom } from '@/actions/buying/planning';
import { setAsset } from '@/actions/jobs/assets';
import { choosePlanning, reserve } from '@/actions/buying/reserving';
import { saveReviewPoints, tickPoint } from '@/actions/orders/reviews';
import { countStock } from '@/actions/stores/counting';
import { keepLevel } from '@/actions/stores/stores';
import type { Post } from '@/actions/orders/sending';
import { guessMapping } from '@/core/quotes/fields';
import { readCsv } from '@/formats/csv/read';
import { publicHolidays } from '@/formats/holidays';
import type { ItemKind } from '@/core/items/kinds';
import type { Rate } from '@/core/money/rate';
import type { Db } from '@/store/db';
import { keepPlacesOf } from '@/store/places';
import { insertPerson } from '@/store/people';
import { insertMany, insertOne } from '@/store/rows';
import { countBin, layOutStores, consume } from './stores';
import { BILLS, COST_CODES, ITEMS, MADE, PEOPLE, STOCK, SUPPLIERS, type DemoItem } from './catalogue';
import { layOutSelling } from './selling';
import { layOutBudgets } from './budgets';
import { layOutSignOff } from './signOff';
import { keepDrawings } from './drawings';
import { EPISODES } from './history';
import { JOBS, type DemoJob } from './jobs';
import { DEMO_PASSWORD } from './password';
import { DemoYard, must, pence, price, q } from './yard';

/** Makes the sample company's file, with a history laid out around `today`. */
export async function seedDemo(
  db: Db,
  today: Day,
  post: Post,
  tell: (words: string) => void = () => {},
): Promise<void> {
  await layOutCompany(db, today);
  const off = (await db('dayOff').select('day')) as { day: string }[];
  const yard = new DemoYard(db, today, { week: MON_TO_FRI, off: new Set(off.map((d) => d.day)) }, post);
  must(await saveReviewPoints(await yard.as('wren', -60), { kind: 'make', points: LOOKED_OVER }));
  await writeInvoices(yard);
  await layOutStores(yard);
  await countStores(yard);
  for (const job of JOBS) await openWithQuote(yard, job);
  await keepDrawings(yard, 'before');
  tell('Jobs and quotes are in');
  for (const [k, episode] of [...EPISODES].sort((a, b) => a.on - b.on).entries()) {
    await yard.play(episode);
    if (k % 8 === 7) tell(`${k + 1} of ${EPISODES.length} orders played`);
  }
  await layOutBudgets(yard);
  await layOutSignOff(yard);
  await keepDrawings(yard, 'after');
  for (const job of JOBS.filter((j) => j.complete)) {
    await consume(yard, job.number, -34);
    await db('job').where({ number: job.number }).update({ state: 'complete' });
  }
  await countBin(yard, 'A-03', [['GL-M20', 12]]);
  await leaveOpen(yard);
}

/** What a euro cost in pounds, from so many days ago on. */
const EURO_RATES = [
  [180, '0.8624'],
  [40, '0.8587'],
  [2, '0.8571'],
] as const;

async function layOutCompany(db: Db, today: Day): Promise<void> {
  await insertMany(
    db,
    'costCode',
    COST_CODES.map(([code, name]) => ({ code, name })),
  );
  await insertMany(db, 'taxCode', [
    { name: 'VAT 20 %', category: 'S', rate: 2000, recoverable: 10_000 },
    { name: 'VAT 5 %', category: 'S', rate: 500, recoverable: 10_000 },
    { name: 'VAT 0 %', category: 'Z', rate: 0, recoverable: 10_000 },
    { name: 'VAT 20 %, not recoverable', category: 'S', rate: 2000, recoverable: 0 },
  ]);
  const codeId = await idsBy(db, 'costCode', 'code');
  const taxId = await idsBy(db, 'taxCode', 'name');
  await db('company').insert({
    id: 1,
    name: 'Wrackline Boatyard',
    address: 'Staithe Road\nSaltmarsh\nSM1 2WB',
    email: 'buying@wrackline.example',
    taxNumber: 'GB 000 4181 26',
    currency: 'GBP',
    country: 'GB-ENG',
    ownPassLimit: pence(50),
    freightCodeId: codeId.get('09'),
    orderTerms:
      'Our terms of purchase apply. Deliveries Monday to Friday, 7:30 to 15:30. Goods that differ from this order are received only after agreement with the buyer.',
  });
  await insertMany(db, 'dayOff', daysOff(today));
  await insertOne(db, 'deliveryPlace', {
    name: 'Wrackline yard, bay 3 store',
    address: 'Staithe Road\nSaltmarsh\nSM1 2WB',
    instructions: 'Fork-lift on site, before 15:00',
  });
  await insertOne(db, 'deliveryPlace', {
    name: 'Slip office',
    address: 'Slip 1, Staithe Road\nSaltmarsh\nSM1 2WB',
    instructions: 'Ring at the gate',
  });
  for (const [back, rate] of EURO_RATES)
    await db('exchangeRate').insert({ currency: 'EUR', day: plusDays(today, -back), rate: rate as Rate });
  const passwordHash = await hashPassword(DEMO_PASSWORD);
  for (const p of PEOPLE)
    await insertPerson(db, { name: p.name, email: `${p.key}@wrackline.example`, passwordHash, roles: p.roles });
  for (const s of SUPPLIERS) {
    const id = await insertOne(db, 'supplier', {
      name: s.name,
      contact: s.contact,
      email: `orders@${s.key}.example`,
      address: s.address,
      currency: s.currency ?? 'GBP',
      paymentDays: s.payment,
      leadDays: s.lead,
      carriage: pence(s.carriage),
      carriageFreeFrom: s.freeFrom === undefined ? null : pence(s.freeFrom),
      taxCodeId: taxId.get(s.tax ?? 'VAT 20 %'),
      carrier: s.carrier,
      terms: s.terms ?? '',
      delivers: s.delivers ?? '',
      minimumOrder: s.minimumOrder === undefined ? null : pence(s.minimumOrder),
    });
    for (const [k, [name, whatFor, email, phone]] of (s.contacts ?? []).entries())
      await db('supplierContact').insert({ supplierId: id, place: k + 1, name, whatFor, email, phone });
    const addresses = (s.addresses ?? []).map(([whatFor, address]) => ({ whatFor, address }));
    await insertMany(
      db,
      'supplierAddress',
      addresses.map((a, k) => ({ supplierId: id, place: k + 1, ...a })),
    );
    await keepPlacesOf(db, id, { name: s.name, address: s.address, addresses });
    if (s.closed !== undefined) {
      const [from, until, words] = s.closed;
      await db('supplierClosed').insert({
        supplierId: id,
        fromDay: plusDays(today, from),
        untilDay: plusDays(today, until),
        words,
      });
    }
  }
  const supplierId = new Map(
    [...(await idsBy(db, 'supplier', 'name'))].map(([name, id]) => [
      SUPPLIERS.find((s) => s.name === name)?.key ?? '',
      id,
    ]),
  );
  for (const item of ITEMS) await layOutItem(db, item, codeId, supplierId);
  await layOutSelling(db, today, supplierId);
  for (const [number, name, unit, code] of MADE)
    await insertOne(db, 'item', { number, name, unit, bought: 0, costCodeId: codeId.get(code) });
}

/** Metal, timber, hose, cable and coatings are materials; what the trade does for us is subcontracted. */
const kindOf = (number: string): ItemKind =>
  number.startsWith('SC-')
    ? 'subcontract'
    : /^(TU|FB|PL|AN-50|RB|CA|HO|ROPE|CO-|TI)/.test(number)
      ? 'material'
      : 'part';

async function layOutItem(
  db: Db,
  [number, name, unit, code, supplier, cost, theirNumber, more = {}]: DemoItem,
  codeId: Map<string, number>,
  supplierId: Map<string, number>,
): Promise<void> {
  const known = cost > 0;
  const itemId = await insertOne(db, 'item', {
    number,
    name,
    unit,
    kind: kindOf(number),
    stocked: more.stocked ? 1 : 0,
    costCodeId: codeId.get(code),
    supplierId: known ? supplierId.get(supplier) : null,
  });
  if (!known) return;
  const partId = await insertOne(db, 'supplierPart', {
    supplierId: supplierId.get(supplier),
    itemId,
    theirNumber,
    unit: more.unit ?? unit,
    factorMany: more.many ?? 1,
    factorOne: 1,
    minimum: q(more.minimum ?? 0),
    pack: q(more.pack ?? 0),
  });
  for (const [from, each] of more.breaks ?? [[0, cost] as const])
    await db('priceBreak').insert({ partId, fromQuantity: q(from), price: price(each), priceQuantity: more.per ?? 1 });
}

async function idsBy(db: Db, table: string, column: string): Promise<Map<string, number>> {
  const rows = (await db(table).select('id', { key: column })) as { id: number; key: string }[];
  return new Map(rows.map((r) => [r.key, r.id]));
}

function daysOff(today: Day) {
  const year = Number(today.slice(0, 4));
  return publicHolidays('GB-ENG', [year - 1, year, year + 1]);
}

const quoted = (cell: string | number) =>
  /[",\n]/.test(String(cell)) ? `"${String(cell).replaceAll('"', '""')}"` : String(cell);

/** A quote file as an estimating sheet writes it. */
export function quoteCsv(
  { lines, allowed, makes }: Pick<DemoJob, 'lines' | 'allowed' | 'makes'>,
  day: (offset: number) => Day,
): string {
  const rows = lines.map(([number, quantity, cost, sell, needed]) => {
    const item = ITEMS.find((i) => i[0] === number);
    if (item === undefined) throw new Error(`There is no item ${number}.`);
    const supplier = item[5] > 0 ? (SUPPLIERS.find((s) => s.key === item[4])?.name ?? '') : '';
    return [number, item[1], quantity, '', cost, sell, item[3], supplier, day(needed), 'bought'].map(quoted).join(',');
  });
  const made = MADE.flatMap(([number, name, , code]) =>
    makes?.[0] === number
      ? [[number, name, makes[1], '', makes[2], makes[3], code, '', '', 'made'].map(quoted).join(',')]
      : [],
  );
  const allowances = Object.entries(allowed).map(
    ([code, amount]) =>
      `,${code === '09' ? 'Carriage and sundries' : 'Contingency'},1,lump sum,${amount},${Math.round(amount * 1.4)},${code},,,allowance`,
  );
  return [
    'Item,Description,Qty,Unit,Our cost,Customer price,Cost code,Supplier,Needed,Kind',
    ...made,
    ...rows,
    ...allowances,
  ].join('\r\n');
}

/** What the yard looks over before it makes something. */
const LOOKED_OVER = ['Drawings at the right revision', 'Dates possible', 'Prices confirmed', 'Terms agreed'];

async function openWithQuote(yard: DemoYard, job: DemoJob): Promise<void> {
  const start = (job.won ?? -6) - 6;
  const lead = (await yard
    .db('person')
    .where({ email: `${job.lead}@wrackline.example` })
    .first('id')) as { id: number };
  const asLead = await yard.as(job.lead, start);
  const opened = must(
    await openJob(asLead, {
      once: yard.once(),
      number: job.number,
      name: job.name,
      shortName: job.short,
      kind: job.kind,
      customer: job.customer,
      leadId: lead.id,
      site: job.site,
      startsOn: yard.day(job.starts),
      dueOn: yard.day(job.due),
    }),
  );
  await yard.db('job').where({ id: opened.id }).update({ dueWords: job.dueWords });
  if (job.asset !== undefined) {
    const [name, description, serial, notes] = job.asset;
    const asset = { name, description, serial, notes, id: null, version: 0 };
    must(await setAsset(asLead, { once: yard.once(), jobId: opened.id, version: 1, asset }));
  }
  if (job.lines.length === 0 && job.makes === undefined) return;
  const quote = (await yard.db('quote').where({ jobId: opened.id }).first('id')) as { id: number };
  const bytes = new TextEncoder().encode(quoteCsv(job, (n) => yard.day(n)));
  const file = must(await keepQuoteFile(asLead, { quoteId: quote.id, name: `quote-${job.number}.csv`, bytes }));
  const sheet = readCsv(bytes);
  if (!sheet.ok) throw new Error('The sample quote cannot be read.');
  must(
    await importQuoteFile(asLead, {
      once: yard.once(),
      fileId: file.id,
      mapping: guessMapping(sheet.value.headings),
      choices: { mark: '.', costCode: {}, supplier: {}, unit: {}, leftOut: [] },
    }),
  );
  if (job.quoteState !== undefined)
    must(await moveQuote(await yard.as(job.lead, start + 2), { quoteId: quote.id, version: 2, to: job.quoteState }));
  if (job.won !== undefined)
    must(
      await winQuote(await yard.as(job.lead, job.won), {
        once: yard.once(),
        quoteId: quote.id,
        version: 2,
        wonBy: job.wonBy ?? '',
      }),
    );
  if (job.kind === 'make' && job.won !== undefined)
    for (const { id: pointId } of await yard.db('reviewPoint').select('id'))
      must(await tickPoint(await yard.as(job.lead, job.won), { jobId: opened.id, pointId, ticked: true }));
  if (job.makes !== undefined && job.won !== undefined) await planByBom(yard, opened.id, job.makes, job.won);
}

/** The invoices of what the yard makes. */
async function writeInvoices(yard: DemoYard): Promise<void> {
  const items = await idsBy(yard.db, 'item', 'number');
  for (const { item, making, lines } of BILLS)
    must(
      await saveBom(await yard.as('asha', -60), {
        once: yard.once(),
        itemId: items.get(item) ?? 0,
        ...{ bomId: null, version: 0, fromDay: yard.day(-60), note: '', makingDays: making },
        lines: lines.map((l) => ({
          gotBy: l.gotBy ?? 'bought',
          itemId: items.get(l.item ?? '') ?? null,
          description:
            l.words ?? ITEMS.find((i) => i[0] === l.item)?.[1] ?? MADE.find((m) => m[0] === l.item)?.[1] ?? '',
          quantity: q(l.quantity),
          unit: l.unit,
          per: 'piece',
          scrap: (l.scrap ?? 0) * 100,
          offsetDays: Math.abs(l.needed ?? 0),
          offsetFrom: (l.needed ?? 0) < 0 ? 'end' : 'start',
          costCodeId: null,
          price: l.price === undefined ? null : price(l.price),
        })),
      }),
    );
}

/** What lay in the stores when they began to be kept. */
async function countStores(yard: DemoYard): Promise<void> {
  const items = await idsBy(yard.db, 'item', 'number');
  const place = await yard.db('deliveryPlace').where({ kind: 'own' }).orderBy('id').first('id');
  const bins = await idsBy(yard.db, 'bin', 'name');
  for (const [number, bin, quantity, value, keep] of STOCK) {
    const where = { itemId: items.get(number) ?? 0, placeId: place?.id ?? 0 };
    must(
      await countStock(await yard.as('joss', -60), {
        once: yard.once(),
        ...{ ...where, jobId: null, binId: bins.get(bin) ?? null, seen: q(0) },
        ...{ quantity: q(quantity), value: pence(value), reason: 'Opening count' },
      }),
    );
    if (keep !== undefined) must(await keepLevel(await yard.as('joss', -60), { ...where, keep: q(keep) }));
  }
}

/** The job takes the BOM of what it makes, buys what stores do not have, and has its bolts put by. */
async function planByBom(yard: DemoYard, jobId: number, [number, many]: NonNullable<DemoJob['makes']>, on: number) {
  const item = await yard.db('item').where({ number }).first('id');
  const asLead = await yard.as('asha', on);
  const bom = { jobId, version: 1, itemId: item?.id ?? 0, quantity: q(many), codeId: null };
  must(await planFromBom(asLead, { once: yard.once(), ...bom }));
  must(await choosePlanning(asLead, { jobId, version: 2, planning: 'shortfall' }));
  const stringers = await yard.db('planLine').where({ jobId, description: 'Stringer pair' }).first('id');
  must(await chooseWork(asLead, { jobId, version: 3, lineId: stringers?.id ?? 0, work: 'own' }));
  const bolts = (await yard
    .db('need as n')
    .join('item as i', 'i.id', 'n.itemId')
    .where({ 'n.jobId': jobId, 'i.number': 'BO-A4-830' })
    .select('n.id')) as { id: number }[];
  must(await reserve(asLead, { once: yard.once(), jobId, needIds: bolts.map((b) => b.id) }));
}

/** The jobs that each person of the sample company has open on the rail. */
async function leaveOpen(yard: DemoYard): Promise<void> {
  await yard.db('openJob').delete();
  for (const [who, numbers] of [
    ['mina', ['412', '418', '421']],
    ['asha', ['412', '421', '425']],
    ['tomas', ['412', '418']],
  ] as const) {
    const setting = await yard.as(who, 0);
    for (const number of numbers) {
      const job = (await yard.db('job').where({ number }).first('id')) as { id: number };
      must(await openOnRail(setting, { jobId: job.id }));
    }
  }
}
