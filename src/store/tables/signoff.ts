import { type JobKind } from '@/core/jobs/states';
import type { Day } from '@/core/calendar/workdays';
import type { Minor } from '@/core/money/money';
import type { Role } from '@/core/people/rights';
import type { RuleAnswer, RuleKind } from '@/core/signoff/rules';

export type BuyingRuleRow = { readonly kind: RuleKind; readonly share: number; readonly answer: RuleAnswer };

export type LadderStepRow = {
  readonly id: number;
  readonly place: number;
  readonly valueAbove: Minor | null;
  readonly overAbove: Minor | null;
  readonly costCodeId: number | null;
  readonly supplierId: number | null;
  readonly jobKind: JobKind | null;
  readonly currency: string | null;
  readonly onRule: number;
  readonly gone: number;
};

export type LadderSignerRow = {
  readonly stepId: number;
  readonly place: number;
  readonly kind: 'person' | 'role' | 'lead';
  readonly personId: number | null;
  readonly role: Role | null;
};

export type DeputyRow = {
  readonly id: number;
  readonly personId: number;
  readonly deputyId: number;
  readonly fromDay: Day;
  readonly toDay: Day;
};

export type SignRound = {
  readonly id: number;
  readonly orderId: number;
  /** The revision it is of; 0 is the order as it is first sent. */
  readonly revision: number;
  /** What the order came to, in the company's currency. */
  readonly value: Minor;
  readonly note: string;
  readonly state: 'open' | 'signed' | 'refused' | 'takenBack';
  readonly personId: number;
  readonly day: Day;
  readonly at: string;
};

export type SignOffRow = {
  readonly id: number;
  readonly roundId: number;
  readonly stepId: number;
  readonly place: number;
  /** Why it is asked for. */
  readonly words: string;
  readonly byPerson: number | null;
  readonly byRole: Role | null;
  readonly supplierId: number;
  readonly about: string;
  readonly state: 'waiting' | 'signed' | 'refused' | 'gone';
  readonly handedTo: number | null;
  readonly handedBy: number | null;
  readonly decidedBy: number | null;
  readonly forId: number | null;
  readonly reason: string;
  readonly day: Day | null;
  readonly at: string | null;
};

export type Notice = {
  readonly id: number;
  readonly personId: number;
  readonly subject: string;
  readonly body: string;
  /** The page that it leads to. */
  readonly path: string;
  readonly orderId: number | null;
  readonly state: 'waiting' | 'sending' | 'taken' | 'failed';
  readonly answer: string;
  readonly at: string;
};
