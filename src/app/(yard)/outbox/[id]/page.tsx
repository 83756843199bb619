import Link from '@/ui/kit/Link';
import { notFound } from 'next/navigation';
import { formatDay, type Day } from '@/core/calendar/workdays';
import { loadMessage } from '@/queries/orders/outbox';
import type { MessageState } from '@/store/tables';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../../server/yardPage';
import { MessageTag } from '../MessageTag';

const CAME: Readonly<Record<MessageState, string>> = {
  taken: 'Emailed to',
  failed: 'Not sent. Send it again from the order. It was for',
  unknown: 'It may have arrived. Ask before you send it again:',
  sending: 'Sending to',
};

export default yardPage(async ({ db, person, today, params }) => {
  const m = await loadMessage(db, person, Number(params.id));
  if (m === undefined) notFound();
  const row = (label: string, value: React.ReactNode) => (
    <>
      <dt className="text-ink-2">{label}</dt>
      <dd>{value}</dd>
    </>
  );
  return (
    <Sheet>
      <h1 className="mb-3 text-[25px]">
        {m.subject}{' '}
        <span className="ml-2 align-[4px]">
          <MessageTag state={m.state} />
        </span>
      </h1>
      <dl className="mb-4 grid max-w-[820px] grid-cols-[120px_1fr] gap-y-1">
        {row('To', m.recipient)}
        {row('Sent by', `${m.who}, ${formatDay(m.at.slice(0, 10) as Day, today)} ${m.at.slice(11, 16)}`)}
        {row(
          'Order',
          <Link href={`/orders/${m.order}`} className="mono font-bold hover:underline">
            {m.order}
          </Link>,
        )}
        {row(
          'Mail server reply',
          <span className={m.state === 'failed' || m.state === 'unknown' ? 'font-semibold text-brick' : ''}>
            {m.answer || 'No reply yet'}
          </span>,
        )}
        {row(
          'Attachment',
          m.documentId === null ? (
            'nothing'
          ) : (
            <a
              href={`/documents/${m.documentId}`}
              target="_blank"
              rel="noreferrer"
              className="mono text-copper-text hover:underline max-phone:inline-block max-phone:py-3.5"
            >
              {m.documentName}
            </a>
          ),
        )}
        {row(
          'Original message',
          <a href={`/outbox/${m.id}/raw`} className="inline-block py-1 text-copper-text hover:underline max-phone:mt-4">
            Download (.eml, {Math.ceil(m.size / 1024)} kB)
          </a>,
        )}
      </dl>
      <pre className="max-w-[820px] rounded-lg border border-line bg-glaze-2 p-4 font-text whitespace-pre-wrap">
        {m.body}
      </pre>
      <Shelf
        facts={
          <Fact>
            {CAME[m.state]} {m.recipient}
          </Fact>
        }
      />
    </Sheet>
  );
});
