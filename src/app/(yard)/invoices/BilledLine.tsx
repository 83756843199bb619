import { formatQuantity, type Quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { StoredLine } from '@/store/orders';

/** The columns with which every table of a bill begins: what was ordered, came, and is on other bills. */
export const BilledHead = () => (
  <>
    <th>Line</th>
    <th className="num">Ordered</th>
    <th className="num">Received</th>
    <th className="num">Other bills</th>
  </>
);

type LeadProps = { readonly line: StoredLine; readonly received: Quantity; readonly elsewhere: Quantity };

export function BilledLead({ line, received, elsewhere }: LeadProps) {
  return (
    <>
      <td>
        <span className="font-semibold">{line.description}</span>
        {line.kind !== 'goods' && <span className="tag ml-2">{line.kind}</span>}
        <span className="mono block text-ink-2">{line.ourNumber}</span>
      </td>
      <td className="num" data-label="Ordered">
        {formatQuantity(line.quantity)} {unitOf(line.unit).short}
      </td>
      <td className="num" data-label="Received">
        {line.kind === 'goods' ? formatQuantity(received) : '–'}
      </td>
      <td className="num" data-label="Other bills">
        {elsewhere === 0 ? '–' : formatQuantity(elsewhere)}
      </td>
    </>
  );
}
