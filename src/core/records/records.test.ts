import { codeLines, codesIn, taxFields, taxForm } from './settings';
import fc from 'fast-check';
import { z } from 'zod';
import { LANGUAGES, usualFor, writeAs } from '../locale/locale';
import { invoiceForm, invoiceFields, FOLLOWS, ORDERS_JOBS, STORES, type InvoiceText } from './invoice';
import { companyFields, companyForm } from './company';
import { itemFields, itemForm, type ItemText } from './item';
import { jobFields, jobForm } from './job';
import { needFields, needForm } from './need';
import { partFields, partForm, type PartText } from './part';
import { DATA_FILES, supplierFields, supplierForm } from './supplier';

afterEach(() => writeAs(usualFor('en-GB')));

/** What a form refuses, by field. */
const faults = (read: z.ZodType, typed: unknown): Record<string, string> => {
  const result = read.safeParse(typed);
  return Object.fromEntries((result.error?.issues ?? []).map((i) => [i.path.join('.'), i.message]));
};

const words = fc.stringMatching(/^[A-Za-z]{1,20}$/);
const amount = fc.integer({ min: 0, max: 100_000_000_000 });

describe('a form reads back what it writes, in every language and currency', () => {
  const way = fc.record({ language: fc.constantFrom(...LANGUAGES), currency: fc.constantFrom('GBP', 'JPY', 'KWD') });

  it('a supplier', () =>
    fc.assert(
      fc.property(
        way,
        fc.record({
          name: words,
          contact: words,
          email: fc.constantFrom('', 'orders@example.com'),
          address: words,
          paymentDays: fc.integer({ min: 0, max: 365 }),
          leadDays: fc.integer({ min: 0, max: 400 }),
          overDelivery: fc.option(fc.integer({ min: 0, max: 10_000 })),
          carriage: amount,
          carriageFreeFrom: fc.option(amount),
          minimumOrder: fc.option(amount),
          taxCodeId: fc.integer({ min: 1, max: 99 }),
          carrier: words,
          terms: words,
          delivers: words,
          dataFiles: fc.subarray([...DATA_FILES]),
        }),
        ({ language, currency }, fields) => {
          writeAs(usualFor(language));
          const form = supplierForm(currency, 'GBP').omit({
            contacts: true,
            addresses: true,
            closed: true,
            week: true,
          });
          const kept = { ...fields, currency, version: 3 } as z.output<typeof form>;
          const read = form.parse(z.encode(form, kept));
          expect(read).toEqual(kept);
          // What is sent says the same to the action that reads it once more.
          const { version: _, ...sent } = read;
          expect(supplierFields.parse(sent)).toMatchObject(sent);
        },
      ),
    ));

  it('a company’s limits', () =>
    fc.assert(
      fc.property(way, amount, fc.integer({ min: 0, max: 10_000 }), ({ language, currency }, most, share) => {
        writeAs(usualFor(language));
        const form = companyForm(currency).omit({ week: true });
        const kept = {
          ...usualFor(language),
          country: 'GB',
          orderPattern: 'K{yy}-{0000}',
          orderGaps: 'fill',
          orderTerms: '',
          receivingDays: 2,
          priceToleranceShare: share,
          priceToleranceMost: most,
          ownPassLimit: most,
          ...{ overDelivery: share, countLimit: most },
          ...{ name: 'New Works', address: 'Lane 1', email: 'buying@new.example', taxNumber: '', jobPattern: 'J{00}' },
        } as z.output<typeof form>;
        expect(form.parse(z.encode(form, kept))).toEqual(kept);
      }),
    ));

  it.each([
    ['K{yy}', 'no place for the count'],
    ['K/{000}', 'can’t hold'],
    ['', 'Enter the order number pattern'],
  ])('numbers orders by no pattern such as %j', (orderPattern, words) =>
    expect(companyFields.shape.orderPattern.safeParse(orderPattern).error?.issues[0]?.message).toContain(words),
  );

  it('a line to buy', () =>
    fc.assert(
      fc.property(
        way,
        fc.integer({ min: 1, max: 10 ** 11 }),
        fc.option(amount),
        ({ language, currency }, many, price) => {
          writeAs(usualFor(language));
          const form = needForm(currency).pick({ description: true, quantity: true, unit: true, price: true });
          const kept = { description: 'Plate', quantity: many, unit: 'MTR', price } as z.output<typeof form>;
          expect(form.parse(z.encode(form, kept))).toEqual(kept);
        },
      ),
    ));
});

describe('a supplier', () => {
  const typed = {
    name: 'Fern Metals',
    contact: '',
    email: '',
    address: '',
    currency: 'jpy',
    paymentDays: '30',
    leadDays: '5',
    carriage: '',
    carriageFreeFrom: '',
    taxCodeId: '1',
    carrier: '',
    terms: '',
    ...{ minimumOrder: '', overDelivery: '' },
    week: null,
    delivers: '',
    contacts: [] as object[],
    addresses: [] as object[],
    closed: [] as object[],
    version: 0,
  };
  const read = (change: Partial<typeof typed>) => {
    const all = { ...typed, ...change };
    return faults(supplierForm(all.currency, 'GBP'), all);
  };

  it('takes no carriage for none, and no limit for never', () =>
    expect(supplierForm('jpy', 'GBP').parse(typed)).toMatchObject({
      currency: 'JPY',
      carriage: 0,
      carriageFreeFrom: null,
    }));
  it('reads amounts in the currency typed beside them', () => {
    expect(supplierForm('jpy', 'GBP').parse({ ...typed, carriage: '900' }).carriage).toBe(900);
    expect(supplierForm('gbp', 'GBP').parse({ ...typed, currency: 'gbp', carriage: '9*100' }).carriage).toBe(90_000);
    expect(Object.keys(read({ carriage: '9.50' }))).toEqual(['carriage']);
  });
  it('sends orders to people with an address only', () =>
    expect(read({ contacts: [{ name: 'Ann', whatFor: '', email: '', phone: '', getsOrders: true }] })).toEqual({
      'contacts.0.email': 'A contact who receives orders needs an email address.',
    }));
  it('leaves out rows that say nothing, and tells what the others lack', () => {
    const person = { name: '', whatFor: '', email: '', phone: '' };
    const days = (fromDay: string, untilDay: string) => ({ fromDay, untilDay, words: '' });
    expect(
      supplierForm('jpy', 'GBP').parse({ ...typed, contacts: [person, { ...person, name: 'Ann' }] }).contacts,
    ).toEqual([{ ...person, name: 'Ann', getsOrders: false }]);
    expect(
      read({
        contacts: [{ ...person, phone: '1' }],
        addresses: [{ whatFor: 'returns', address: ' ' }],
        closed: [days('2026-08-10', '2026-08-01'), days('2026-08-01', '')],
      }),
    ).toEqual({
      'contacts.0.name': 'Enter a name.',
      'addresses.0.address': 'Enter the address.',
      'closed.0.untilDay': 'The last date is before the first. Correct one of them.',
      'closed.1.untilDay': 'Enter the last date.',
    });
    expect(read({ closed: [days('2026-08-01', '2026-08-10'), days('2026-08-10', '2026-08-12')] })).toEqual({
      'closed.1.fromDay': 'These dates overlap another closure.',
    });
    expect(read({ closed: [days('2026-08-01', '2028-08-10')] })).toEqual({
      'closed.0.untilDay': 'A closure can last up to one year.',
    });
  });
  it('says beside each field what it lacks', () =>
    expect(read({ name: ' ', email: 'nobody', currency: 'pounds', paymentDays: '', leadDays: '2.5', carriage: '-1' }))
      .toMatchInlineSnapshot(`
{
  "carriage": "Enter 0 or more.",
  "currency": "Use a currency code such as GBP or EUR.",
  "email": "That isn’t an email address. Type it like name@example.com.",
  "leadDays": "Enter a number of days.",
  "name": "Enter the supplier’s name.",
  "paymentDays": "Enter a number of days.",
}
`));
});

describe('an item', () => {
  const typed: ItemText = {
    version: 1,
    number: 'A-1',
    name: 'Angle',
    unit: 'C62',
    gtin: '',
    kind: 'service',
    bought: true,
    stocked: false,
    tracking: 'none',
    certificate: false,
    ...{ inspected: false, numberPattern: '' },
    weight: '0.888',
    costCodeId: null,
    supplierId: { id: 7, number: '', name: 'Fern Metals' },
  };

  it('is read as its action takes it', () => {
    const { version: _, ...read } = itemForm.parse(typed);
    expect(read).toMatchObject({ kind: 'service', weight: 8880, gtin: null, supplierId: 7, costCodeId: null });
    expect(itemFields.parse(read)).toEqual(read);
  });
  it('has a GTIN that is one', () =>
    expect(faults(itemForm, { ...typed, gtin: '5901234123450' })).toEqual({
      gtin: 'That isn’t a GTIN: its check digit is wrong.',
    }));
});

describe('how a supplier sells an item', () => {
  const first = { fromQuantity: '', price: '2.50', fromDay: '', untilDay: '' };
  const typed: PartText = {
    version: 0,
    theirNumber: 'F-1',
    unit: 'MTR',
    factorMany: '1',
    factorOne: '6',
    minimum: '0',
    pack: '',
    leadDays: '',
    usual: true,
    per: '100',
    breaks: [first, { fromQuantity: '100', price: '2.4', fromDay: '2026-07-01', untilDay: '' }],
  };
  const read = (change: Partial<PartText>) => faults(partForm('GBP'), { ...typed, ...change });

  it('is read as it is typed, all prices for one quantity', () => {
    const { version: _, ...part } = partForm('GBP').parse(typed);
    expect(part).toMatchObject({ leadDays: null, usual: true });
    expect(part.breaks).toEqual([
      { fromQuantity: 0, price: 25_000, priceQuantity: 100, fromDay: null, untilDay: null },
      { fromQuantity: 1_000_000, price: 24_000, priceQuantity: 100, fromDay: '2026-07-01', untilDay: null },
    ]);
    expect(partFields.parse({ supplierId: 7, ...part })).toEqual({ supplierId: 7, ...part });
  });
  it('tells faults at their fields', () =>
    expect(
      read({ per: '0', factorOne: '0', leadDays: 'soon', breaks: [{ ...first, fromQuantity: '1', price: 'x' }] }),
    ).toEqual({
      per: 'Enter 1 or more.',
      factorOne: 'Enter a number above zero.',
      leadDays: 'Enter a number of days.',
      'breaks.0.price': '“x” isn’t a number.',
    }));
  it('has no two prices from the same quantity on the same days', () => {
    const from = (fromDay: string, untilDay: string) => ({ ...first, fromDay, untilDay });
    const words = 'Price 1 has the same quantity and overlapping dates.';
    expect(read({ breaks: [first, { ...first, fromQuantity: '0' }] })).toEqual({ 'breaks.1.fromQuantity': words });
    expect(read({ breaks: [from('', '2026-06-30'), from('2026-06-30', '')] })).toEqual({
      'breaks.1.fromQuantity': words,
    });
    expect(read({ breaks: [from('', '2026-06-30'), from('2026-07-01', '')] })).toEqual({});
    expect(read({ breaks: [from('2026-07-01', '2026-06-30')] })).toEqual({
      'breaks.0.untilDay': 'The last date is before the first. Correct one of them.',
    });
  });
});

describe('a job', () => {
  const typed = {
    number: '500',
    name: 'Rudder',
    shortName: '',
    kind: 'repair' as const,
    customer: 'Harbour trust',
    leadId: { id: 4, number: '', name: 'Somebody' },
    site: '',
    startsOn: '',
    dueOn: '2026-12-01',
  };
  it('goes on as its action reads it', () => {
    const read = jobForm.parse(typed);
    expect(read).toMatchObject({ leadId: 4, startsOn: null, dueOn: '2026-12-01' });
    expect(jobFields.parse(read)).toEqual(read);
  });
  it('wants a lead, and days that are days', () =>
    expect(faults(jobForm, { ...typed, leadId: null, startsOn: 'one day', number: 'New' })).toEqual({
      number: 'A job can’t be called “new”. Choose another number.',
      leadId: 'Choose the job lead.',
      startsOn: '“one day” isn’t a date between 2000 and 2100.',
    }));
});

describe('an invoice', () => {
  const line = (lineId: number, quantity: string, price = '1.25') => ({ lineId, quantity, price, taxCodeId: '2' });
  const extra = (change: object) => ({
    description: 'Carriage',
    net: '9',
    taxCodeId: '1',
    to: ORDERS_JOBS,
    code: FOLLOWS,
    ...change,
  });
  const job = { id: 12, number: '418', name: 'Hull' };
  const code = { id: 3, number: '09', name: 'Freight' };
  const typed: InvoiceText = { number: 'R 1', day: '2026-03-02', typedTotal: '12', lines: [], extras: [] };
  const read = (change: Partial<InvoiceText>) => invoiceForm('GBP').parse({ ...typed, ...change });

  it('leaves out what is not invoiced, whatever stands beside it', () => {
    const invoice = read({ lines: [line(1, ''), line(2, '3'), line(3, '0', 'nonsense')] });
    expect(invoice.lines).toEqual([{ lineId: 2, quantity: 30_000, price: 12_500, taxCodeId: 2 }]);
    expect(invoiceFields.parse(invoice)).toEqual(invoice);
  });
  it('says who bears what was not ordered', () => {
    const extras = [
      extra({}),
      extra({ to: STORES, code }),
      extra({ to: job, code }),
      extra({ description: ' ', net: '' }),
    ];
    const invoice = read({ extras });
    expect(invoice.extras.map((e) => e.to)).toEqual([
      { kind: 'jobs', costCodeId: null },
      { kind: 'stores' },
      { kind: 'job', jobId: 12, costCodeId: 3 },
    ]);
    expect(invoiceFields.parse(invoice)).toEqual(invoice);
  });
  it('tells faults in the rows they were typed in', () =>
    expect(
      faults(invoiceForm('GBP'), {
        number: '',
        day: '',
        typedTotal: ' ',
        lines: [line(1, ''), line(2, 'many', '')],
        extras: [extra({ description: '' }), extra({ to: job }), extra({ to: null })],
      }),
    ).toEqual({
      number: 'Enter the invoice number.',
      day: 'Enter the invoice date.',
      typedTotal: 'Enter the invoice total incl. tax.',
      'lines.1.quantity': '“many” isn’t a number.',
      'lines.1.price': 'Enter a number.',
      'extras.0.description': 'Enter what it is for.',
      'extras.1.code': 'Choose a cost code for the job.',
      'extras.2.to': 'Choose what it is charged to.',
    }));
});

it('a line to buy may be wanted no more, and goes on as its action reads it', () => {
  const typed = {
    description: 'Plate',
    quantity: '0',
    unit: 'MTR',
    price: '',
    costCodeId: { id: 1, number: '01', name: 'Hull' },
    supplierId: null,
    neededOn: '',
    item: null,
    surplus: '' as const,
  };
  const { item: _, surplus: __, ...read } = needForm('GBP').parse(typed);
  expect(read).toMatchObject({ quantity: 0, price: null, costCodeId: 1, supplierId: null, neededOn: null });
  expect(needFields.parse(read)).toEqual(read);
  expect(companyFields.shape.week.parse([5, 1, 5])).toEqual([1, 5]);
});

describe('a tax', () => {
  const tax = { name: 'VAT 20 %', category: 'S' as const, rate: 2000, recoverable: 10_000 };
  it('is typed as it is kept', () => {
    const typed = z.encode(taxForm, tax);
    expect(typed).toMatchObject({ rate: '20', recoverable: '100' });
    expect(taxForm.parse(typed)).toEqual(tax);
  });

  // EN 16931-1, rules BR-S-05, BR-Z-05, BR-E-05, BR-AE-05, BR-IC-05, BR-G-05 and BR-O-05, from memory: category S has a
  // rate above zero, every other one has none.
  it.each([
    ['S', 2000, true],
    ['S', 0, false],
    ...(['Z', 'E', 'AE', 'K', 'G', 'O'] as const).flatMap((c) => [[c, 0, true] as const, [c, 500, false] as const]),
  ] as const)('of category %s at %d hundredths of a percent is taken: %s', (category, rate, taken) =>
    expect(taxFields.safeParse({ ...tax, category, rate }).success).toBe(taken),
  );
});

describe('cost codes in a text', () => {
  it('are a number and a name in each line that is not empty', () =>
    expect(codesIn('01 Hull and structure\n\n 02\tDeck ')).toEqual([
      { code: '01', name: 'Hull and structure' },
      { code: '02', name: 'Deck' },
    ]));

  it('say which line is none', () =>
    expect(codeLines.safeParse('01 Hull\nDeck').error?.issues[0]?.message).toBe(
      '“Deck” isn’t a cost code. Type a number and a name, like “01 Hull and structure”.',
    ));
});
