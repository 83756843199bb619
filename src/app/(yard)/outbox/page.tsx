import { listMessages } from '@/queries/orders/outbox';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Empty, GoOn, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { TakeOut } from '@/ui/kit/TakeOut';
import { yardPage } from '../../server/yardPage';
import { MessagesTable } from './MessagesTable';

export const metadata = { title: 'Outbox' };

export default yardPage(async ({ db, person, query }) => {
  const { rows, next } = await listMessages(db, person, query.before);
  return (
    <Sheet>
      <PlaceTitle title="Outbox" count="emails to suppliers, and the mail server’s reply">
        <TakeOut list="outbox" />
      </PlaceTitle>
      {rows.length === 0 ? (
        <Empty title="No emails sent yet">
          When you send an order, its email appears here with the mail server’s reply.
        </Empty>
      ) : (
        <MessagesTable rows={rows} />
      )}
      {next !== undefined && (
        <GoOn to="/outbox" query={{ before: next }}>
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
