import { isCharge } from './kinds';
import { formatDay, type Day } from '../calendar/workdays';
import { formatQuantity, type Quantity } from '../quantity/quantity';
import { unitOf } from '../quantity/units';
import { done, refusal, refused, type Result } from '../result';
import { dueOf, OPEN_AT_SUPPLIER, progressOf, type OrderState } from './states';

type Line = Parameters<typeof progressOf>[0] & {
  readonly description: string;
  readonly theirNumber: string;
  readonly unit: string;
  readonly wantedOn: Day | null;
  readonly promisedOn: Day | null;
};

/** How long a supplier may take to confirm an order before it is asked, in days. */
export const DAYS_TO_CONFIRM = 3;

/** Where an order stands until its supplier confirms it. */
export const UNCONFIRMED = 'sent' satisfies OrderState;

type Order = { readonly number: string; readonly state: OrderState; readonly wantedOn: Day | null };

/** Whether a line that is still to come should have been here: by the day its supplier promised, else by the day it is wanted. */
export const isLate = ({ promisedOn, wantedOn }: Pick<Line, 'promisedOn' | 'wantedOn'>, today: Day): boolean => {
  const comes = promisedOn ?? wantedOn;
  return comes !== null && comes < today;
};

/**
 * What is asked after on an order, in words, one line for each that is still to come: the late ones alone when some are.
 * @returns refused for an order that is not with its supplier, or that nothing is to come of
 */
export function owedOf(order: Order & { readonly lines: readonly Line[] }, today: Day): Result<string[]> {
  if (!OPEN_AT_SUPPLIER.includes(order.state))
    return refused(
      refusal('order.state', `Order ${order.number} hasn’t been sent, so there is nothing to chase. Send it first.`),
    );
  const due = order.lines.filter((l) => !isCharge(l) && dueOf(progressOf(l)) > 0);
  if (due.length === 0)
    return refused(refusal('order.in', `Order ${order.number} is fully received: nothing to chase.`));
  const late = due.filter((l) => isLate({ ...l, wantedOn: l.wantedOn ?? order.wantedOn }, today));
  return done((late.length > 0 ? late : due).map((l) => owedWords(l, today)));
}

function owedWords(line: Line, today: Day): string {
  const left: Quantity = dueOf(progressOf(line));
  const what = `${formatQuantity(left)} ${unitOf(line.unit).short}`.trim();
  const number = line.theirNumber === '' ? '' : ` (your item no. ${line.theirNumber})`;
  const said = [
    line.wantedOn === null ? '' : `required by ${formatDay(line.wantedOn, today)}`,
    line.promisedOn === null ? '' : `promised ${formatDay(line.promisedOn, today)}`,
  ].filter(Boolean);
  return `- ${what} ${line.description}${number}${said.length === 0 ? '' : `, ${said.join(', ')}`}`;
}
