import { may, RIGHTS, type Right } from '@/core/people/rights';
import type { Person } from '@/store/people';

/** Thrown when a person looks at what is not theirs to see; pages turn it into a plain message. */
export class NotPermitted extends Error {
  constructor(readonly right: Right) {
    super(`You don’t have permission to ${RIGHTS[right]}.`);
  }
}

export function permit(person: Person, right: Right): void {
  if (!may(person, right)) throw new NotPermitted(right);
}
