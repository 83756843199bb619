import type { OrderChange } from '@/core/orders/revising';
import type { OrderView } from '@/queries/orders/order';

/** That a revision is being written, and that nothing moved yet. */
export function Revising({ view }: { view: OrderView }) {
  const { revising, order } = view;
  if (revising === undefined) return null;
  return (
    <p className="mt-2 rounded-lg border border-line bg-glaze-2 px-3 py-1.5">
      <b>Revision {revising.number} in progress:</b> {revising.reason}.{' '}
      <span className="text-ink-2">
        Until you send it, jobs and Dock use {order.revision === 0 ? 'the order as sent' : `revision ${order.revision}`}
        .
      </span>
    </p>
  );
}

const HOW = { term: '', changed: '', new: 'new', gone: 'cancelled' } as const;

/** What a revision changes, as it was sent and as it is to be. */
export function ChangeList({ changes }: { changes: readonly OrderChange[] }) {
  if (changes.length === 0) return <p className="text-ink-2">No changes yet: edit an order line or a term.</p>;
  return (
    <ul aria-label="Changes in the revision">
      {changes.map((c) => (
        <li key={`${c.how} ${c.number} ${c.name}`} className="border-b border-line-2 py-1">
          <span className="font-semibold">
            {c.how !== 'term' && <span className="text-ink-2">{c.number} </span>}
            {c.name}
          </span>{' '}
          {HOW[c.how] !== '' && (
            <span className={`tag ${c.how === 'new' ? 'tag-good' : 'tag-care'}`}>{HOW[c.how]}</span>
          )}
          {c.changes
            .filter(({ what }) => c.how === 'changed' || c.how === 'term' || what === 'Quantity' || what === 'Price')
            .map(({ what, was, is }) => (
              <div key={what} className="text-[12.5px]">
                {c.how !== 'term' && <span className="text-ink-2">{what.toLowerCase()} </span>}
                {was !== '' && <del className="text-ink-2">{was}</del>}{' '}
                {is !== '' && <ins className="font-semibold no-underline">{is}</ins>}
              </div>
            ))}
        </li>
      ))}
    </ul>
  );
}
