'use client';

import Link from '@/ui/kit/Link';
import { useRouter } from 'next/navigation';
import { useState, type ReactNode } from 'react';
import { canMove, isUnsent, OPEN_AT_SUPPLIER } from '@/core/orders/states';
import type { OrderView } from '@/queries/orders/order';
import { useKey } from '@/ui/frame/keys';
import { Faults } from '@/ui/kit/Field';
import { makeKey, useAct } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';
import { StateTag } from '../StateTag';
import { CancelOrder, Revise } from './OrderEnding';
import { counted } from '@/core/words';

const Block = ({ label, strong, children }: { label: string; strong: ReactNode; children?: ReactNode }) => (
  <div className="min-w-0 flex-1 basis-[150px]">
    <div className="text-[12.5px] text-ink-2">{label}</div>
    <div className="font-semibold">{strong}</div>
    <div className="text-[12.5px] text-ink-2">{children}</div>
  </div>
);

/** Number and state of an order, and what became of its mail. */
export function OrderHead({ view }: { view: OrderView }) {
  const { order, supplier, madeBy, documents, mail, revising } = view;
  const { day, today, may } = useYard();
  const [ending, setEnding] = useState<'revise' | 'cancel'>();
  const router = useRouter();
  const repeat = useAct(acts.repeatOrder, {
    said: ({ number }) => `${number} drafted with the same lines at today’s prices`,
    onDone: ({ number }) => router.push(`/orders/${number}`),
  });
  const mayEnd = revising === undefined && may('draft orders');
  const mayRevise = mayEnd && OPEN_AT_SUPPLIER.includes(order.state);
  useKey('R', 'Revise order', () => setEnding('revise'), mayRevise);
  const unsent = isUnsent(order.state, order.sentFrom);
  const started = order.madeAt.slice(0, 10) === today ? 'today' : day(order.madeAt.slice(0, 10) as typeof today);
  const failed = mail?.state === 'failed' ? mail : undefined;
  const unknown = mail?.state === 'unknown' ? mail : undefined;
  const preview = unsent || revising !== undefined;
  const what = revising === undefined ? 'This order' : `Revision ${revising.number}`;
  const paper = preview ? `/orders/${order.number}/pdf` : documents[0] ? `/documents/${documents[0].id}` : undefined;
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        <h1 className="text-[25px] leading-tight">
          Order <span className="font-mono text-[23px] font-semibold">{order.number}</span>
        </h1>
        {order.revision > 0 && <span className="text-ink-2">revision {order.revision}</span>}
        <StateTag state={order.state} />
        <span className="text-ink-2">
          {order.sentOn === null
            ? `drafted ${started} by ${madeBy}`
            : `sent ${order.sentOn === today ? 'today' : day(order.sentOn)} by ${madeBy}`}
        </span>
        <span className="ml-auto flex flex-wrap gap-x-4">
          {mayRevise && (
            <button type="button" className="step" onClick={() => setEnding('revise')}>
              Revise
            </button>
          )}
          {mayEnd && !unsent && (
            <button
              type="button"
              className="step"
              disabled={repeat.busy}
              onClick={() => void repeat.run({ once: makeKey(), orderId: order.id })}
            >
              Repeat order
            </button>
          )}
          {mayEnd && !unsent && canMove(order.state, 'cancel') && (
            <button type="button" className="step" onClick={() => setEnding('cancel')}>
              Cancel order
            </button>
          )}
          {paper !== undefined && (
            <a href={paper} target="_blank" rel="noreferrer" className="step">
              {preview ? 'Preview PDF' : 'Open PDF'}
            </a>
          )}
        </span>
      </div>
      {ending === 'revise' && <Revise view={view} onClose={() => setEnding(undefined)} />}
      {ending === 'cancel' && <CancelOrder view={view} onClose={() => setEnding(undefined)} />}
      <Faults messages={repeat.refusals.map((r) => r.message)} />
      {failed && (
        <div role="alert" className="mt-3 rounded-lg border border-brick bg-brick-wash px-3 py-2 text-brick">
          <b>{what} was not sent:</b> the email to {failed.recipient} failed ({failed.answer}).{' '}
          <Link href={`/suppliers/${supplier.id}`} className="font-semibold underline">
            Check the supplier’s address
          </Link>
          , then send again or mark it as sent by hand.
        </div>
      )}
      {unknown && (
        <div role="alert" className="mt-3 rounded-lg border border-brick bg-brick-wash px-3 py-2 text-brick">
          <b>{what} may have arrived</b> ({unknown.answer}). Ask {supplier.name} whether they have it. If so, mark it as
          sent; if not, send it again.
        </div>
      )}
    </>
  );
}

/** To whom, where and when an order goes. */
export function Terms({ view }: { view: OrderView }) {
  const { order, supplier, place, companyCurrency } = view;
  const { day } = useYard();
  return (
    <>
      <div className="mt-3 flex flex-wrap gap-x-6 gap-y-3 border-y border-line py-2.5">
        <Block
          label="Supplier"
          strong={
            <Link href={`/suppliers/${supplier.id}`} className="hover:underline max-phone:inline-block max-phone:py-1">
              {supplier.name}
            </Link>
          }
        >
          {[
            order.theirNumber && `supplier’s ref. ${order.theirNumber}`,
            supplier.contact,
            counted(supplier.paymentDays, 'day'),
            order.currency,
          ]
            .filter(Boolean)
            .join(' · ')}
        </Block>
        <Block label="Deliver to" strong={place.name}>
          {[place.instructions, order.siteContact].filter(Boolean).join(' · ')}
        </Block>
        <Block label="Required by" strong={day(order.wantedOn)}>
          {order.latestOn === null
            ? `lead time ${counted(supplier.leadDays, 'working day')}`
            : `no later than ${day(order.latestOn)}`}
        </Block>
        <Block label="Carrier" strong={[order.carrier, order.carrierService].filter(Boolean).join(', ') || '–'}>
          {order.currency === companyCurrency ? '' : `1 ${order.currency} at ${order.rate} ${companyCurrency}`}
        </Block>
      </div>
      {order.instructions !== '' && <p className="mt-2 whitespace-pre-line text-ink-2">{order.instructions}</p>}
    </>
  );
}
