import { may } from '@/core/people/rights';
import { listOrders, loadShares } from '@/queries/orders/orders';
import { Empty, GoOn } from '@/ui/kit/Sheet';
import { OrdersTable } from '../../../orders/OrdersTable';
import { jobPage } from '../jobPage';
import { JobShelf } from '../JobShelf';
import { counted } from '@/core/words';

export default jobPage(async ({ db, person, today, query, job }) => {
  const { rows, next } = await listOrders(db, person, { show: 'all', jobId: job.id, after: query.after }, today);
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
        <Empty title="No orders for this job yet">Select its buy-list lines in Gather to draft orders.</Empty>
      ) : (
        <OrdersTable
          rows={rows.map((r) => ({ ...r, share: shares?.get(r.id) ?? null }))}
          shares={shares !== undefined}
        />
      )}
      {next !== undefined && (
        <GoOn to={`/jobs/${job.number}/orders`} query={{ after: next }}>
          Older orders
        </GoOn>
      )}
      <JobShelf person={person} job={job} fact={`${counted(job.counts.orders, 'order')} in total`} />
    </div>
  );
});
