import Link from '@/ui/Link';
import { formatDay, type Day } from '@/core/calendar/workdays';
import { listMessages } from '@/queries/outbox';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Empty, GoOn, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { place } from '../../server/place';
import { MessageTag } from './MessageTag';

export const metadata = { title: 'Outbox' };

export default place(async ({ db, person, today, query }) => {
  const { rows, more } = await listMessages(db, person, query.before === undefined ? undefined : Number(query.before));
  return (
    <Sheet>
      <PlaceTitle title="Outbox" count="what was mailed to suppliers, and what the mail server said" />
      {rows.length === 0 ? (
        <Empty title="Nothing was mailed yet">
          When an order is sent, its message stands here with the mail server’s answer.
        </Empty>
      ) : (
        <div className="relative max-phone:overflow-x-auto">
          <table className="ledger" aria-label="Messages">
            <thead>
              <tr>
                <th>When</th>
                <th>Order</th>
                <th>To</th>
                <th className="max-phone:hidden">Subject</th>
                <th>Result</th>
                <th className="max-phone:hidden">Sent by</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((m) => (
                <tr key={m.id}>
                  <td className="whitespace-nowrap">
                    {formatDay(m.at.slice(0, 10) as Day, today)} {m.at.slice(11, 16)}
                  </td>
                  <td>
                    <Link href={`/orders/${m.order}`} className="mono font-bold">
                      {m.order}
                    </Link>
                  </td>
                  <td>{m.recipient}</td>
                  <td className="max-phone:hidden">
                    <Link href={`/outbox/${m.id}`} className="font-semibold hover:underline">
                      {m.subject}
                    </Link>
                  </td>
                  <td>
                    <Link href={`/outbox/${m.id}`}>
                      <MessageTag state={m.state} />
                    </Link>
                  </td>
                  <td className="text-ink-2 max-phone:hidden">{m.who}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {more && (
        <GoOn to="/outbox" query={{ before: rows.at(-1)?.id }}>
          Older messages
        </GoOn>
      )}
      <Shelf
        facts={
          <Fact>
            {rows.filter((m) => m.state === 'failed' || m.state === 'unknown').length} of the {rows.length} shown failed
            or may not have arrived
          </Fact>
        }
      />
    </Sheet>
  );
});
