/** One thing that waits for a person, in words, with the place where it is settled. */
export type Waiting = {
  readonly word: string;
  readonly weight: 'over' | 'care' | 'good';
  readonly text: string;
  readonly step: string;
  readonly href: string;
};
export type Group = {
  readonly title: string;
  /** Where all of them stand, when the rows may be fewer. */
  readonly href?: string;
  readonly count: number;
  readonly rows: readonly Waiting[];
};

/** How many rows of a group the Desk shows. */
export const SHOWN = 5;
