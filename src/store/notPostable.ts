import type { Refusal } from '@/core/result';

/** What the ledger does not take, whatever happened: for a closed job, or for a day on which it could not have been. */
export class NotPostable extends Error {
  constructor(readonly refusal: Refusal) {
    super(refusal.message);
  }
}
