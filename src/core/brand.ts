declare const brand: unique symbol;

/** A primitive that must not be mixed up with another of the same type. */
export type Brand<T, Name extends string> = T & { readonly [brand]: Name };
