import { isCharge, type LineKind } from './kinds';
import { formatQuantity, quantity, type Quantity } from '../quantity/quantity';
import { unitOf } from '../quantity/units';
import { refusal, type Refusal } from '../result';
import { OPEN_AT_SUPPLIER, type OrderState } from './states';

/** Whether an order can be revised: it is with its supplier, and not settled. */
export const reviseFault = (order: { readonly number: string; readonly state: OrderState }): Refusal | undefined =>
  OPEN_AT_SUPPLIER.includes(order.state)
    ? undefined
    : refusal(
        'order.state',
        `Order ${order.number} hasn’t been sent, so there is nothing to revise. Change the draft instead.`,
      );

type WantedSplit = {
  readonly id?: number | undefined;
  readonly jobId: number | null;
  readonly costCodeId: number | null;
  readonly quantity: Quantity;
};

/** A line as it was sent, with what became of it since. */
export type SentLine = {
  readonly id: number;
  readonly description: string;
  readonly kind: LineKind;
  readonly itemId: number | null;
  readonly unit: string;
  readonly quantity: Quantity;
  readonly received: Quantity;
  /** Here and not released. */
  readonly held: Quantity;
  /** Sent back for credit: it was ordered, and is not wanted any more. */
  readonly givenUp: Quantity;
  readonly invoiced: Quantity;
  /** On invoices that wait to be matched. */
  readonly claimed: Quantity;
  /** A receipt or an invoice speaks of it, also one that was taken back or out. */
  readonly traced: boolean;
  readonly ended: boolean;
  readonly splits: readonly (WantedSplit & {
    readonly id: number;
    readonly received: Quantity;
    readonly givenUp: Quantity;
    readonly invoiced: Quantity;
  })[];
};

/** The same line as a revision has it. */
export type RevisedLine = {
  readonly id?: number | undefined;
  readonly kind: LineKind;
  readonly itemId: number | null;
  readonly unit: string;
  readonly quantity: Quantity;
  readonly splits: readonly WantedSplit[];
};

/**
 * What came of a line, released or not, with what went back for credit, or is claimed of it: it is never revised below that.
 */
const leastOf = ({ received, held, givenUp, invoiced, claimed }: SentLine): Quantity =>
  quantity(Math.max(received + held + givenUp, invoiced + claimed));

/**
 * What stands against a revision: a line is never revised below what came or was invoiced, stays what it is once something
 * of it came, and stays as it is once it has ended.
 *
 * @returns refusals at the fields of the revised lines; empty when it may go
 */
export function revisionFaults(sent: readonly SentLine[], revised: readonly RevisedLine[]): Refusal[] {
  return sent.flatMap((before): Refusal[] => {
    const k = revised.findIndex((l) => l.id === before.id);
    const after = revised[k];
    const least = leastOf(before);
    const name = before.description;
    const said = `${formatQuantity(least)} ${unitOf(before.unit).short}`.trim();
    const fault = (code: string, words: string, field: string): Refusal[] => [
      refusal(code, words, `lines.${Math.max(k, 0)}.${field}`),
    ];
    if (after === undefined)
      return before.traced
        ? [
            refusal(
              'revise.gone',
              `${name} is already received or invoiced, so its line can’t be removed. Close it short instead.`,
            ),
          ]
        : [];
    if (before.ended && after.quantity !== before.quantity)
      return fault('revise.ended', `${name} is closed short. Reopen the line before you revise it.`, 'quantity');
    if (least > 0 && (after.kind !== before.kind || after.itemId !== before.itemId || after.unit !== before.unit))
      return fault(
        'revise.other',
        `${name} is part received or invoiced, so its item, unit and type can’t change.`,
        'description',
      );
    if (after.quantity < least)
      return fault('revise.less', `${said} of ${name} are received or invoiced: enter at least that.`, 'quantity');
    return partFaults(before, after, k);
  });
}

/** What came of a part stays with the job it came for. */
function partFaults(before: SentLine, after: RevisedLine, k: number): Refusal[] {
  if (isCharge(before)) return [];
  return before.splits.flatMap((part): Refusal[] => {
    const least = quantity(Math.max(part.received + part.givenUp, part.invoiced));
    if (!before.traced) return [];
    const now = after.splits.find((s) => s.id === part.id);
    const fault = (words: string) => [refusal('revise.part', words, `lines.${k}.splits`)];
    if (now === undefined || now.jobId !== part.jobId || now.costCodeId !== part.costCodeId)
      return fault(`${before.description} is part received or invoiced, so its splits keep their jobs.`);
    return now.quantity < least
      ? fault(
          `${formatQuantity(least)} of ${before.description} are already received for a job: enter at least that in its split.`,
        )
      : [];
  });
}

/** A charge that was invoiced keeps the jobs it was invoiced to: what it follows stays with them. */
export const invoicedChargeFaults = (
  sent: readonly SentLine[],
  revised: readonly {
    readonly id?: number | undefined;
    readonly splits: readonly { readonly id?: number | undefined }[];
  }[],
): Refusal[] =>
  sent
    .filter((l) => isCharge(l) && l.traced)
    .filter((before) => {
      const kept = new Set(revised.find((l) => l.id === before.id)?.splits.map((s) => s.id));
      return before.splits.some((s) => !kept.has(s.id));
    })
    .map(({ description }) =>
      refusal(
        'revise.charge',
        `${description} is invoiced to jobs it would no longer be spread over. Keep their lines.`,
      ),
    );

/** What an order says, in words, as it was sent or is to be sent: its terms, and its lines by what each says. */
export type ToldOrder = {
  readonly terms: Readonly<Record<string, string>>;
  readonly lines: readonly {
    readonly id?: number | undefined;
    readonly number: number;
    readonly name: string;
    readonly says: Readonly<Record<string, string>>;
  }[];
};

/** One thing that a revision changes. A line that is new was nothing; one that is taken off is nothing. */
export type OrderChange = {
  /** The line's number; 0 for a term. */
  readonly number: number;
  readonly how: 'term' | 'changed' | 'new' | 'gone';
  readonly name: string;
  readonly changes: readonly { readonly what: string; readonly was: string; readonly is: string }[];
};

const differing = (was: Readonly<Record<string, string>>, is: Readonly<Record<string, string>>) =>
  [...new Set([...Object.keys(was), ...Object.keys(is)])]
    .filter((what) => (was[what] ?? '') !== (is[what] ?? ''))
    .map((what) => ({ what, was: was[what] ?? '', is: is[what] ?? '' }));

/** What differs between an order as it was sent and as it is to be sent, line by line. */
export function orderChanges(sent: ToldOrder, revised: ToldOrder): OrderChange[] {
  const terms = differing(sent.terms, revised.terms).map((c): OrderChange => ({
    number: 0,
    how: 'term',
    name: c.what,
    changes: [c],
  }));
  const lines = revised.lines.flatMap((line): OrderChange[] => {
    const { name, number } = line;
    const before = sent.lines.find((l) => l.id !== undefined && l.id === line.id);
    const changes = differing(before?.says ?? {}, line.says);
    if (before === undefined) return [{ number, how: 'new', name, changes }];
    return changes.length === 0 ? [] : [{ number, how: 'changed', name, changes }];
  });
  const gone = sent.lines.flatMap((line): OrderChange[] =>
    revised.lines.some((l) => l.id !== undefined && l.id === line.id)
      ? []
      : [{ number: line.number, how: 'gone', name: line.name, changes: differing(line.says, {}) }],
  );
  return [...terms, ...lines, ...gone];
}
