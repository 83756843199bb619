import { isInvoiced, leftOf, UNSENT, type LineProgress, type OrderState } from '../orders/states';
import { refusal, type Refusal } from '../result';
import { someOf, together } from '../words';

/** What stands against any change of a job that is closed: of its budget, its tab, or what is bought for it. */
export const closedRefusal = (number: string): Refusal =>
  refusal('job.closed', `Job ${number} is closed. Reopen it to make changes.`);

/** What an order still owes a job, or is owed for it. */
export type OpenOrder = {
  readonly number: string;
  readonly state: OrderState;
  /** Its lines that are charged to the job. */
  readonly lines: readonly LineProgress[];
};

/** What keeps a job from being closed, by the numbers of its documents and parts. */
export type Open = {
  /** Orders that are not sent, or of which something is still to come. */
  readonly orders: readonly string[];
  /** Orders of which something is in and not invoiced. */
  readonly uninvoiced: readonly string[];
  readonly invoices: readonly string[];
  readonly changes: readonly number[];
  /** Its own goods that lie in stores. */
  readonly stock: readonly string[];
  /** What is reserved for it. */
  readonly reserved: readonly string[];
};

/** What of a job's orders is open: not sent, still to come, or in and not invoiced. */
export function openOf(orders: readonly OpenOrder[]): Pick<Open, 'orders' | 'uninvoiced'> {
  const waits = orders.filter((o) => UNSENT.includes(o.state) || o.lines.some((l) => leftOf(l) > 0));
  const uninvoiced = orders.filter((o) => !waits.includes(o) && o.lines.some((l) => !isInvoiced(l)));
  return { orders: waits.map((o) => o.number), uninvoiced: uninvoiced.map((o) => o.number) };
}

/** Why a job cannot be closed yet, each with what has to be ended first. */
export function closingFaults({ orders, uninvoiced, invoices, changes, stock, reserved }: Open): Refusal[] {
  const faults: Refusal[] = [];
  const is = (of: readonly string[], one: string, more: string) => `${someOf(of)} ${of.length === 1 ? one : more}`;
  if (orders.length > 0)
    faults.push(refusal('close.orders', `${is(orders, 'is', 'are')} open. Cancel, close short or receive them first.`));
  if (uninvoiced.length > 0)
    faults.push(
      refusal(
        'close.uninvoiced',
        `Goods on ${together(uninvoiced)} are received but not invoiced. Match the invoices, or mark No more invoices.`,
      ),
    );
  if (invoices.length > 0)
    faults.push(
      refusal(
        'close.invoices',
        `${invoices.length === 1 ? 'Invoice' : 'Invoices'} ${is(invoices, 'waits', 'wait')} to be matched. Match or void ${invoices.length === 1 ? 'it' : 'them'} first.`,
      ),
    );
  if (changes.length > 0)
    faults.push(
      refusal(
        'close.changes',
        `Budget change ${together(changes.map(String))} is awaiting agreement. Agree or withdraw it first.`,
      ),
    );
  if (stock.length > 0)
    faults.push(
      refusal('close.stock', `${is(stock, 'is', 'are')} still job stock. Issue it, or transfer it to stores.`),
    );
  if (reserved.length > 0)
    faults.push(refusal('close.reserved', `${is(reserved, 'is', 'are')} reserved for it. Issue it, or unreserve it.`));
  return faults;
}
