/**
 * Whether slow proofs are in their long form. `npm test` runs the short one: the same histories, kills and attacks, fewer
 * of them. `npm run proof` runs the long one.
 */
export const isProof = process.env.KETTLE_PROOF === '1';

/** How often something slow is tried. */
export const times = (short: number, long: number): number => (isProof ? long : short);

/** What something slow is tried with: all of it in the long form, the first and the last in the short one. */
export const tried = <T>(all: readonly T[]): readonly T[] => (isProof ? all : ([all[0], all.at(-1)] as T[]));
