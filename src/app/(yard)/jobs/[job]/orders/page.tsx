import { notFound } from 'next/navigation';
import { may } from '@/core/people/rights';
import { findJob } from '@/queries/job';
import { listOrders, loadShares } from '@/queries/orders';
import { Empty, GoOn } from '@/ui/kit/Sheet';
import { OrdersTable } from '../../../orders/OrdersTable';
import { place } from '../../../../server/place';
import { JobShelf } from '../JobShelf';
import { counted } from '@/core/words';

export default place(async ({ db, person, params, query }) => {
  const job = await findJob(db, person, params.job ?? '');
  if (job === undefined) notFound();
  const before = query.before === undefined ? undefined : Number(query.before);
  const { rows, more } = await listOrders(db, person, { show: 'all', jobId: job.id, before });
  const shares = may(person, 'see money')
    ? await loadShares(
        db,
        job.id,
        rows.map((r) => r.id),
      )
    : undefined;
  return (
    <div className="mt-3">
      {rows.length === 0 ? (
        <Empty title="Nothing is ordered for this job yet">What its buy list needs becomes orders in Gather.</Empty>
      ) : (
        <OrdersTable
          rows={rows.map((r) => ({ ...r, share: shares?.get(r.id) ?? null }))}
          shares={shares !== undefined}
        />
      )}
      {more && (
        <GoOn to={`/jobs/${job.number}/orders`} query={{ before: rows.at(-1)?.id }}>
          Older orders
        </GoOn>
      )}
      <JobShelf db={db} person={person} job={job} fact={`${counted(job.counts.orders, 'order')} in all`} />
    </div>
  );
});
