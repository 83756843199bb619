import { isGoodsLine } from '@/core/orders/kinds';
import { formatQuantity, type Quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { StoredLine } from '@/store/orders';
import type { Column } from '@/ui/ledger/column';

/** What a row of an invoice says of the order; a row that was not ordered has none of it. */
type Ordered = {
  readonly description: string;
  readonly line: StoredLine | undefined;
  readonly received: Quantity;
  readonly elsewhere: Quantity;
};

/** The columns with which every table of an invoice begins: what was ordered, came, and is on other invoices. */
export const invoicedColumns = <Row,>(of: (row: Row) => Ordered): Column<Row>[] => [
  {
    key: 'line',
    head: 'Line',
    className: 'row-whole',
    cell: (row) => {
      const { line, description } = of(row);
      const kind = line === undefined ? 'Not on order' : line.kind;
      return (
        <>
          <span className="font-semibold">{description}</span>
          {kind !== 'goods' && <span className="tag ml-2">{kind}</span>}
          <span className="mono block text-ink-2">{line?.ourNumber}</span>
        </>
      );
    },
  },
  {
    key: 'ordered',
    head: 'Ordered',
    num: true,
    cell: (row) => {
      const { line } = of(row);
      return line === undefined ? '' : `${formatQuantity(line.quantity)} ${unitOf(line.unit).short}`;
    },
  },
  {
    key: 'received',
    head: 'Received',
    num: true,
    cell: (row) => {
      const { line, received } = of(row);
      return line === undefined ? '' : isGoodsLine(line) ? formatQuantity(received) : '–';
    },
  },
  {
    key: 'elsewhere',
    head: 'Other invoices',
    num: true,
    cell: (row) => {
      const { line, elsewhere } = of(row);
      return line === undefined ? '' : elsewhere === 0 ? '–' : formatQuantity(elsewhere);
    },
  },
];
