import { notFound } from 'next/navigation';
import { may } from '@/core/people/rights';
import { findJob } from '@/queries/job';
import { listOrders, loadShares } from '@/queries/orders';
import { Empty } from '@/ui/kit/Sheet';
import { OrdersTable } from '../../../orders/OrdersTable';
import { place } from '../../../../server/place';

export default place(async ({ db, person, params }) => {
  const job = await findJob(db, person, params.job ?? '');
  if (job === undefined) notFound();
  const { rows } = await listOrders(db, person, { show: 'all', jobId: job.id });
  const shares = may(person, 'see money')
    ? await loadShares(
        db,
        job.id,
        rows.map((r) => r.id),
      )
    : undefined;
  if (rows.length === 0)
    return <Empty title="Nothing is ordered for this job yet">What its buy list needs becomes orders in Gather.</Empty>;
  return (
    <div className="mt-3">
      <OrdersTable rows={rows.map((r) => ({ ...r, share: shares?.get(r.id) ?? null }))} shares={shares !== undefined} />
    </div>
  );
});
