/** What a reason for a delivery that is not as ordered does. */
export const REASON_DOES = ['toCome', 'cancelled', 'missing', 'damaged', 'elsewhere', 'rejected'] as const;
export type ReasonDoes = (typeof REASON_DOES)[number];

/** What may become of what did not come, and why what came may be rejected. */
export const REST: readonly ReasonDoes[] = ['toCome', 'missing', 'cancelled', 'elsewhere'];
export const REJECT: readonly ReasonDoes[] = ['damaged', 'rejected'];

export const REASON_NAMES: Readonly<Record<ReasonDoes, string>> = {
  toCome: 'still to come',
  cancelled: 'cancelled',
  missing: 'missing',
  damaged: 'damaged',
  elsewhere: 'sent elsewhere',
  rejected: 'rejected',
};

/** What each kind of reason does at once. */
export const WHAT_IT_DOES: Readonly<Record<ReasonDoes, string>> = {
  toCome: 'It stays on order, and its job sees the new day.',
  cancelled: 'What is left is freed, and stands on the buy list again.',
  missing: 'It stays on order, and is not paid until it comes.',
  elsewhere: 'It is awaited at the other place, and confirmed there.',
  damaged: 'It lies here until it goes back, and is awaited still.',
  rejected: 'It lies here until it goes back, and is awaited still.',
};
