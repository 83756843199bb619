import type { LineKind } from '../orders/kinds';

/** Something that is marked to come with a certificate: 1 for yes. */
type Marked = { readonly certificate: number };

/**
 * Whether a certificate has to come with what a line brings: the line is marked so, or its item always comes with one.
 * Only goods come with certificates.
 * @example wantsCertificate('goods', { certificate: 0 }, { certificate: 1 }) // true
 */
export const wantsCertificate = (kind: LineKind, ...marked: readonly (Marked | undefined)[]): boolean =>
  kind === 'goods' && marked.some((m) => m?.certificate === 1);
