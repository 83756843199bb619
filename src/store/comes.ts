/** A line `l` of which nothing more can come: it was closed short, or its last invoice was. */
const GOES_ON = 'l.closed_short is null and l.invoices_ended is null';

/** Goods of a line `l` that are still to come from the supplier, in its unit, as the core's `dueOf` has it; below zero where more came. */
export const GOODS_DUE = 'l.quantity - l.given_up - l.received - l.held';
/** Whether a line `l` brings goods still. */
export const BRINGS_GOODS = `l.kind = 'goods' and ${GOES_ON} and ${GOODS_DUE} > 0`;
/** Whether something of a line `l` is still to come: goods, or hours that are not invoiced. */
export const BRINGS_SOMETHING = `${GOES_ON} and case l.kind when 'goods' then ${GOODS_DUE} else l.quantity - l.given_up - l.invoiced end > 0`;

/** What of a split `s` of a line `l` is not available yet, in the need's unit, as the core's `awaitedOf` has it. */
export const SPLIT_AWAITED = 's.quantity - s.given_up - s.received';
export const AWAITS_SPLIT = `${GOES_ON} and ${SPLIT_AWAITED} > 0`;

/** The day a line `l` of an order `o` is to come: as its supplier promised, else as it is wanted. */
export const COMES_ON = 'coalesce(l.promised_on, l.wanted_on, o.wanted_on)';

/** A line `l` of an order `o` that goes to a place of the company's own; what is for stores does wherever it comes. */
export const COMES_HERE = `(coalesce(l.place_id, o.place_id) in (select id from delivery_place where kind = 'own')
  or exists (select 1 from split x where x.line_id = l.id and x.job_id is null))`;
