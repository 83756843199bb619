/** A named reason why something cannot be done, in words for the person who asked for it. */
export type Refusal = {
  /** Stable name for code and tests. */
  readonly code: string;
  /** What happened, why, and what to do. */
  readonly message: string;
  /** The form field or line it belongs to, as a dotted path. */
  readonly field?: string;
};

export type Result<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly refusals: readonly Refusal[] };

export const done = <T>(value: T): Result<T> => ({ ok: true, value });

export const refused = (...refusals: readonly Refusal[]): Result<never> => ({ ok: false, refusals });

export const refusal = (code: string, message: string, field?: string): Refusal =>
  field === undefined ? { code, message } : { code, message, field };
