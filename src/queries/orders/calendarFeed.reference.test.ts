import ICAL from 'ical.js';
import { chooseFeed, setActive } from '@/actions/people/people';
import { confirmOrder } from '@/actions/orders/confirming';
import { calendarFeed } from '@/formats/ical';
import { must, q, TestCompany, TODAY } from '../../../tests/support/company';
import { loadDeliveries } from './calendarFeed';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.close());

/** The package ical.js as second opinion on what is written as iCalendar (RFC 5545). */
const read = (feed: string) =>
  new ICAL.Component(ICAL.parse(feed) as never).getAllSubcomponents('vevent').map((v) => {
    const event = new ICAL.Event(v);
    const { startDate, summary, description, location, uid } = event;
    return { day: startDate.toString(), allDay: startDate.isDate, summary, description, location, uid };
  });

const feedOf = async (token: string) =>
  calendarFeed('Deliveries', 'yard.example', `${TODAY}T10:00:00.000Z`, (await loadDeliveries(yard.db, token)) ?? []);

const addressOf = async (sender: Awaited<ReturnType<TestCompany['as']>>) =>
  must(await chooseFeed(sender, { on: true })).token ?? '';

describe('the calendar of deliveries', () => {
  it('tells what is still to come, on the day it is promised or wanted, and no price', async () => {
    const needs = [
      await yard.need({ neededOn: '2026-05-20', description: 'Hose; 12 mm, “wet”' }),
      await yard.need({ neededOn: '2026-05-20', description: 'Clamp', job: 1, price: 3 }),
    ];
    const order = await yard.send(await yard.draft(needs.map((needId) => ({ needId, buy: q(12) }))));
    await yard.draft([{ needId: await yard.need({ neededOn: '2026-05-20' }), buy: q(12) }]);
    const token = await addressOf(await yard.as('buyer'));
    expect(read(await feedOf(token))).toEqual([
      {
        day: '2026-05-19',
        allDay: true,
        summary: `Eelmoor Metals: 2 lines of ${order.number}`,
        description: '12 m Hose; 12 mm, “wet” for 412\n12 m Clamp for 418',
        location: 'Yard',
        uid: `${order.number}-2026-05-19-Yard@yard.example`,
      },
    ]);
    must(await yard.takeIn(order, 5));
    const now = await yard.order(order.id);
    const lines = [{ lineId: order.lines[1]?.id ?? 0, quantity: q(12), price: null, promisedOn: '2026-06-02' }];
    must(
      await confirmOrder(await yard.as('buyer'), {
        ...{ once: yard.once(), orderId: order.id, version: now.version, theirNumber: '', note: '' },
        lines,
      }),
    );
    expect(read(await feedOf(token)).map((e) => [e.day, e.description])).toEqual([
      ['2026-05-19', '7 m Hose; 12 mm, “wet” for 412'],
      ['2026-06-02', '12 m Clamp for 418'],
    ]);
    expect(await feedOf(token)).not.toContain('8.00');
  });

  it('is folded and ended as the standard asks, with words of any length', async () => {
    const long = 'Ü'.repeat(190);
    await yard.send(
      await yard.draft([{ needId: await yard.need({ neededOn: '2026-05-20', description: long }), buy: q(1) }]),
    );
    const token = await addressOf(await yard.as('buyer'));
    const feed = await feedOf(token);
    // RFC 5545, 3.1: lines end with CRLF and are at most 75 octets long.
    expect(feed.split('\r\n').every((l) => Buffer.byteLength(l) <= 75)).toBe(true);
    expect(read(feed)[0]?.description).toContain(long);
  });

  it('is read by who has its address, until that is ended, made anew, or its person is let in no more', async () => {
    const buyer = await yard.as('buyer');
    const first = await addressOf(buyer);
    const second = await addressOf(buyer);
    expect([await loadDeliveries(yard.db, first), await loadDeliveries(yard.db, 'none')]).toEqual([
      undefined,
      undefined,
    ]);
    expect(await loadDeliveries(yard.db, second)).toEqual([]);
    expect(JSON.stringify(await yard.db('person'))).not.toContain(second);
    must(await chooseFeed(buyer, { on: false }));
    expect(await loadDeliveries(yard.db, second)).toBeUndefined();
    const third = await addressOf(buyer);
    must(await setActive(await yard.as('administrator'), { personId: buyer.actor.id, version: 1, active: false }));
    expect(await loadDeliveries(yard.db, third)).toBeUndefined();
  });
});
