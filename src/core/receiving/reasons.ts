/** What a reason for a delivery that is not as ordered does. */
export const REASON_DOES = ['toCome', 'cancelled', 'missing', 'damaged', 'elsewhere', 'rejected'] as const;
export type ReasonDoes = (typeof REASON_DOES)[number];

/** What may become of what did not come, and why what came may be rejected. */
export const REST: readonly ReasonDoes[] = ['toCome', 'missing', 'cancelled', 'elsewhere'];
export const REJECT: readonly ReasonDoes[] = ['damaged', 'rejected'];

export const REASON_NAMES: Readonly<Record<ReasonDoes, string>> = {
  toCome: 'back-ordered',
  cancelled: 'cancelled',
  missing: 'short-delivered',
  damaged: 'damaged',
  elsewhere: 'sent elsewhere',
  rejected: 'rejected',
};

/** What each kind of reason does at once. */
export const WHAT_IT_DOES: Readonly<Record<ReasonDoes, string>> = {
  toCome: 'Stays on order; the job shows the new date.',
  cancelled: 'The rest is freed and goes back on the buy list.',
  missing: 'Stays on order; not paid for until it arrives.',
  elsewhere: 'Expected at the other address; confirmed there.',
  damaged: 'Kept here until it is returned; still on order.',
  rejected: 'Kept here until it is returned; still on order.',
};
