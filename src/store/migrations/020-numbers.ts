/**
 * A line of an order keeps the number that it was sent with; numbers go on behind the highest that any revision had. What
 * an order said when it last went out tells its lines' numbers as well.
 */
export const name = '020-numbers';

export const up = `
ALTER TABLE order_line ADD COLUMN number INTEGER NOT NULL DEFAULT 0;
UPDATE order_line SET number = place;
ALTER TABLE purchase_order ADD COLUMN last_line INTEGER NOT NULL DEFAULT 0;
UPDATE purchase_order SET last_line = coalesce((SELECT max(place) FROM order_line WHERE order_id = purchase_order.id), 0)
 WHERE sent_on IS NOT NULL;
UPDATE order_revision SET sent = json_set(sent, '$.lines',
  (SELECT json_group_array(json_set(value, '$.number', key + 1)) FROM json_each(order_revision.sent, '$.lines')))
 WHERE number = (SELECT revision FROM purchase_order WHERE id = order_revision.order_id);
`;
