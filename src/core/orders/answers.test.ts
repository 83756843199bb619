import { MON_TO_FRI, type Day } from '../calendar/workdays';
import type { UnitPrice } from '../money/money';
import { quantity } from '../quantity/quantity';
import { owedOf } from './chasing';
import { answerDifferences, confirmFault, type Answered } from './confirming';
import { fillIn, MAIL_WORDS, type MailFields } from './mail';

const calendar = { week: MON_TO_FRI, off: new Set<string>() };
const TODAY = '2026-05-12' as Day;
const q = (n: number) => quantity(n * 10_000);
const answered = (change: Partial<Answered> = {}): Answered => ({
  kind: 'goods',
  closedShort: false,
  invoicesEnded: false,
  ordered: q(12),
  received: q(0),
  invoiced: q(0),
  held: q(0),
  givenUp: q(0),
  description: 'Hose',
  unit: 'MTR',
  price: 80_000 as UnitPrice,
  priceQuantity: 1,
  wantedOn: '2026-05-18' as Day,
  neededOn: '2026-05-19' as Day,
  confirmed: q(12),
  confirmedPrice: 80_000 as UnitPrice,
  promisedOn: '2026-05-19' as Day,
  ...change,
});
const differ = (change: Partial<Answered>) =>
  answerDifferences(answered(change), 'GBP', TODAY, calendar).map((d) => d.words);

describe('a supplier’s answer', () => {
  it('that says what was ordered differs in nothing', () => expect(differ({})).toEqual([]));
  it.each([
    ['fewer', { confirmed: q(10) }, ['10 m confirmed, 12 m ordered']],
    ['a dearer price', { confirmedPrice: 85_000 as UnitPrice }, ['£\u202f6.00 more than ordered']],
    [
      'a cheaper price for fewer',
      { confirmed: q(10), confirmedPrice: 75_000 as UnitPrice },
      ['10 m confirmed, 12 m ordered', '£\u202f5.00 less than ordered'],
    ],
    [
      'a day after it is needed',
      { promisedOn: '2026-05-25' as Day },
      ['promised Mon 25 May, 4 working days after the needed date'],
    ],
    [
      'a day after it is wanted, where no job says when',
      { neededOn: null, promisedOn: '2026-05-19' as Day },
      ['promised Tue 19 May, 1 working day after the wanted date'],
    ],
    ['no day', { promisedOn: null }, []],
    ['nothing that is told any more once all is in', { received: q(12), promisedOn: '2026-05-25' as Day }, []],
  ])('with %s is told', (_, change, words) => expect(differ(change)).toEqual(words));

  it('is there for an order that is with its supplier', () => {
    expect(confirmFault({ number: 'K1', state: 'confirmed' })).toBeUndefined();
    expect(confirmFault({ number: 'K1', state: 'drafting' })?.message).toContain('hasn’t been sent');
  });
});

describe('what is asked after', () => {
  const line = (change: object = {}) => ({
    kind: 'goods' as const,
    description: 'Hose',
    theirNumber: '88',
    unit: 'MTR',
    quantity: q(12),
    received: q(5),
    invoiced: q(0),
    held: q(0),
    givenUp: q(0),
    closedShort: null,
    invoicesEnded: null,
    wantedOn: '2026-05-11' as Day,
    promisedOn: null as Day | null,
    ...change,
  });
  type Asked = Omit<ReturnType<typeof line>, 'wantedOn'> & { readonly wantedOn: Day | null };
  const order = { number: 'K1', state: 'partIn' as const, wantedOn: '2026-05-04' as Day | null };
  const asked = (...lines: Asked[]) => owedOf({ ...order, lines }, TODAY);

  it('is what is late, or everything where nothing is', () => {
    const later = line({ description: 'Clamp', theirNumber: '', promisedOn: '2026-05-20' as Day });
    expect(asked(line(), later)).toEqual({
      ok: true,
      value: ['- 7 m Hose (your item no. 88), required by Mon 11 May'],
    });
    expect(asked(later)).toEqual({ ok: true, value: ['- 7 m Clamp, required by Mon 11 May, promised Wed 20 May'] });
    // A line without a day comes with its order.
    const whole = { ...line(), wantedOn: null };
    expect(asked(whole, later)).toEqual({ ok: true, value: ['- 7 m Hose (your item no. 88)'] });
    expect(owedOf({ ...order, wantedOn: null, lines: [whole, later] }, TODAY)).toMatchObject({
      value: [expect.any(String), expect.any(String)],
    });
  });

  it('is no more than what is still to come: not what waits at the door, nor what went back for credit', () => {
    expect(asked(line({ held: q(3), givenUp: q(1) }))).toEqual({
      ok: true,
      value: ['- 3 m Hose (your item no. 88), required by Mon 11 May'],
    });
    expect(asked(line({ held: q(7) }))).toMatchObject({ ok: false, refusals: [{ code: 'order.in' }] });
  });

  it('is nothing once all is in, or before it was sent', () => {
    expect(asked(line({ received: q(12) }))).toMatchObject({ ok: false, refusals: [{ code: 'order.in' }] });
    expect(owedOf({ ...order, state: 'drafting', lines: [line()] }, TODAY)).toMatchObject({
      ok: false,
      refusals: [{ code: 'order.state' }],
    });
  });
});

describe('the words of a mail', () => {
  const fields: MailFields = {
    ...{ number: 'K26-0001', revision: '2', company: 'Yard', supplier: 'Eelmoor', contact: 'Sales', buyer: 'Mina' },
    ...{ changes: 'Line 1: 12 m → 14 m', lines: '- 7 m Hose' },
  };
  it('are filled in, in one line for the subject', () => {
    expect(fillIn(MAIL_WORDS.revision, fields)).toMatchObject({
      subject: 'Purchase order K26-0001, revision 2, from Yard',
      body: expect.stringContaining('Line 1: 12 m → 14 m'),
    });
    expect(fillIn({ subject: '{number}\r\nBcc: x@y.example', body: '' }, fields).subject).toBe(
      'K26-0001 Bcc: x@y.example',
    );
  });
  it('keep what is no field, and leave no gap where nobody is named', () => {
    expect(fillIn({ subject: 'x', body: '{nothing} {number}' }, fields).body).toBe('{nothing} K26-0001');
    expect(fillIn(MAIL_WORDS.order, { ...fields, contact: '' }).body).toMatch(/^Hello,\n/);
  });
});
