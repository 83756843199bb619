import { domainOf } from '@/formats/mail/compose';
import { calendarFeed } from '@/formats/ical';
import { loadDeliveries } from '@/queries/orders/calendarFeed';
import { readers } from '@/server/readers';
import { clock } from '@/server/setting';
import { findCompany } from '@/store/company';

/** What is expected from suppliers, for a calendar that cannot sign in: who has the address of a feed may read it. */
export async function GET(_: Request, { params }: { params: Promise<{ token: string }> }): Promise<Response> {
  const db = await readers();
  const expected = await loadDeliveries(db, (await params).token.replace(/\.ics$/, ''));
  const company = await findCompany(db);
  if (expected === undefined || company === undefined)
    return new Response('Not found: this calendar address was turned off or replaced.', { status: 404 });
  const feed = calendarFeed(`Deliveries, ${company.name}`, domainOf(company.email), clock.now(), expected);
  return new Response(feed, {
    headers: {
      'content-type': 'text/calendar; charset=utf-8',
      'content-disposition': 'inline; filename="deliveries.ics"',
      'cache-control': 'private, no-store',
    },
  });
}
