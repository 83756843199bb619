import type { ReasonChoice } from '@/queries/dockOrder';

type Does = ReasonChoice['does'];

/** What each kind of reason does at once, as it is told beside the choice. */
export const WHAT_IT_DOES: Readonly<Record<Does, string>> = {
  toCome: 'It stays on order, and its job sees the new day.',
  cancelled: 'What is left is freed, and stands on the buy list again.',
  missing: 'It stays on order, and is not paid until it comes.',
  elsewhere: 'It is awaited at the other place, and confirmed there.',
  damaged: 'It lies here until it goes back, and is awaited still.',
  rejected: 'It lies here until it goes back, and is awaited still.',
};

export const REST: readonly Does[] = ['toCome', 'missing', 'cancelled', 'elsewhere'];
export const REJECT: readonly Does[] = ['damaged', 'rejected'];

export const doesOf = (reasons: readonly ReasonChoice[], id: string): Does | undefined =>
  reasons.find((r) => String(r.id) === id)?.does;
