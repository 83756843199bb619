/** What a line of an order is: goods that come in, a service that is only invoiced, or a charge on the others. */
export const LINE_KINDS = ['goods', 'service', 'charge'] as const;
export type LineKind = (typeof LINE_KINDS)[number];

type HasKind = { readonly kind: LineKind };

export const isGoodsLine = ({ kind }: HasKind): boolean => kind === 'goods';
export const isService = ({ kind }: HasKind): boolean => kind === 'service';
export const isCharge = ({ kind }: HasKind): boolean => kind === 'charge';

/** Whether a charge is charged to jobs as the lines it is spread over are, rather than to parts of its own. */
export const followsLines = (line: HasKind & { readonly spread: string }): boolean =>
  isCharge(line) && line.spread !== 'amounts';
