import { keepInStep, numbered } from './003-entry';

/**
 * Goods followed to the piece and the penny: bins, lots and serial numbers, goods of jobs, inspection at the door,
 * stores on the ledger, counting sheets, and since when the material of a job is complete.
 */
export const name = '013-stock';

export const up = `
CREATE TABLE bin (
  id INTEGER PRIMARY KEY, place_id INTEGER NOT NULL REFERENCES delivery_place(id), name TEXT NOT NULL COLLATE NOCASE, closed INTEGER NOT NULL DEFAULT 0 CHECK (closed IN (0, 1)),
  version INTEGER NOT NULL DEFAULT 1, UNIQUE (place_id, name)
) STRICT;
-- A lot of an item, or one piece of it by its serial number.
CREATE TABLE lot (
  id INTEGER PRIMARY KEY, item_id INTEGER NOT NULL REFERENCES item(id), number TEXT NOT NULL COLLATE NOCASE, expires_on TEXT, UNIQUE (item_id, number)
) STRICT;
CREATE INDEX lot_by_number ON lot(number);
${keepInStep({ kind: 13, table: 'lot', words: numbered('t.number'), of: 'number' })}
-- How the numbers of its pieces read: 9 for a figure, A for a letter, * for either, all else as it is. Empty for any.
ALTER TABLE item ADD COLUMN number_pattern TEXT NOT NULL DEFAULT '';
ALTER TABLE item ADD COLUMN inspected INTEGER NOT NULL DEFAULT 0 CHECK (inspected IN (0, 1));

-- What changed stock beside orders and issues: a count, what was scrapped, what went from one owner to another, and what
-- bills and returns came to beyond what lies there. It is charged to job_id (null for stores); a transfer goes on to to_job_id.
CREATE TABLE stock_change (
  id INTEGER PRIMARY KEY REFERENCES tab_line(id), kind TEXT NOT NULL CHECK (kind IN ('counted','scrapped','transferred','difference')),
  item_id INTEGER NOT NULL REFERENCES item(id), place_id INTEGER NOT NULL REFERENCES delivery_place(id), split_id INTEGER REFERENCES split(id),
  job_id INTEGER REFERENCES job(id), cost_code_id INTEGER REFERENCES cost_code(id), need_id INTEGER REFERENCES need(id), share INTEGER NOT NULL DEFAULT 0,
  to_job_id INTEGER REFERENCES job(id), to_code_id INTEGER REFERENCES cost_code(id), to_need_id INTEGER REFERENCES need(id), to_share INTEGER NOT NULL DEFAULT 0,
  quantity INTEGER NOT NULL, value INTEGER NOT NULL, reason TEXT NOT NULL DEFAULT '', day TEXT NOT NULL
) STRICT;
CREATE INDEX stock_change_by_need ON stock_change(need_id) WHERE need_id IS NOT NULL;
CREATE INDEX stock_change_by_to_need ON stock_change(to_need_id) WHERE to_need_id IS NOT NULL;
CREATE INDEX stock_change_by_item ON stock_change(item_id, id);
CREATE INDEX stock_change_by_split ON stock_change(split_id) WHERE split_id IS NOT NULL;

-- Moves are written anew with where they lie, by which number, and what they belong to on the tab.
CREATE TABLE stock_move_anew (
  id INTEGER PRIMARY KEY, item_id INTEGER NOT NULL REFERENCES item(id), place_id INTEGER NOT NULL REFERENCES delivery_place(id), job_id INTEGER REFERENCES job(id),
  bin_id INTEGER REFERENCES bin(id), lot_id INTEGER REFERENCES lot(id),
  kind TEXT NOT NULL CHECK (kind IN ('counted','received','issued','returned','revalued','moved','scrapped','transferred','sentBack')), quantity INTEGER NOT NULL, value INTEGER NOT NULL, reason TEXT NOT NULL DEFAULT '',
  split_id INTEGER REFERENCES split(id), issue_id INTEGER REFERENCES issue(id), change_id INTEGER REFERENCES stock_change(id), receipt_id INTEGER REFERENCES receipt(id),
  person_id INTEGER NOT NULL REFERENCES person(id), day TEXT NOT NULL, at TEXT NOT NULL
) STRICT;
CREATE TEMP TABLE counts AS SELECT m.id AS move_id, coalesce((SELECT seq FROM sqlite_sequence WHERE name = 'tab_line'), 0) + row_number() OVER (ORDER BY m.id) AS id
  FROM stock_move m WHERE m.split_id IS NULL AND m.issue_id IS NULL;
INSERT INTO tab_line (id, kind, words) SELECT c.id, 'stockChange', 'count of ' || i.name FROM counts c JOIN stock_move m ON m.id = c.move_id JOIN item i ON i.id = m.item_id;
INSERT INTO stock_change (id, kind, item_id, place_id, job_id, quantity, value, reason, day)
  SELECT c.id, 'counted', m.item_id, m.place_id, m.job_id, m.quantity, m.value, m.reason, m.day FROM counts c JOIN stock_move m ON m.id = c.move_id;
INSERT INTO stock_move_anew (id, item_id, place_id, job_id, kind, quantity, value, reason, split_id, issue_id, change_id, person_id, day, at)
  SELECT m.id, m.item_id, m.place_id, m.job_id, m.kind, m.quantity, m.value, m.reason, m.split_id, m.issue_id, c.id, m.person_id, m.day, m.at
  FROM stock_move m LEFT JOIN counts c ON c.move_id = m.id ORDER BY m.id;
DROP TABLE counts;
DROP TABLE stock_move;
ALTER TABLE stock_move_anew RENAME TO stock_move;
CREATE INDEX stock_move_by_item ON stock_move(item_id, id);
CREATE INDEX stock_move_by_lot ON stock_move(lot_id, id) WHERE lot_id IS NOT NULL;
CREATE INDEX stock_move_by_split ON stock_move(split_id, job_id, place_id, quantity, value) WHERE split_id IS NOT NULL;
CREATE INDEX stock_move_by_issue ON stock_move(issue_id) WHERE issue_id IS NOT NULL;
CREATE INDEX stock_move_by_change ON stock_move(change_id) WHERE change_id IS NOT NULL;
CREATE INDEX stock_move_by_receipt ON stock_move(receipt_id) WHERE receipt_id IS NOT NULL;
CREATE TRIGGER stock_move_is_never_changed BEFORE UPDATE ON stock_move BEGIN SELECT RAISE(ABORT, 'a move of stock is never changed'); END;
CREATE TRIGGER stock_move_is_never_deleted BEFORE DELETE ON stock_move BEGIN SELECT RAISE(ABORT, 'a move of stock is never deleted'); END;
-- How much lies where, by owner (0 for the company), bin (0 for none) and lot or serial number (0 for none).
CREATE TABLE stock_spot (
  item_id INTEGER NOT NULL, place_id INTEGER NOT NULL, job_id INTEGER NOT NULL, bin_id INTEGER NOT NULL, lot_id INTEGER NOT NULL, quantity INTEGER NOT NULL CHECK (quantity >= 0),
  PRIMARY KEY (item_id, place_id, job_id, bin_id, lot_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX stock_spot_by_lot ON stock_spot(lot_id, quantity) WHERE lot_id > 0;
CREATE INDEX stock_spot_by_bin ON stock_spot(place_id, bin_id, item_id) WHERE quantity > 0;
INSERT INTO stock_spot SELECT item_id, place_id, job_id, 0, 0, quantity FROM stock_sum;
CREATE INDEX stock_sum_of_job ON stock_sum(job_id, item_id, quantity) WHERE job_id > 0 AND quantity > 0;
CREATE TRIGGER stock_move_is_summed AFTER INSERT ON stock_move BEGIN
  SELECT RAISE(ABORT, 'what has numbers never comes without them') WHERE NEW.quantity > 0 AND NEW.lot_id IS NULL AND (SELECT tracking FROM item WHERE id = NEW.item_id) <> 'none';
  INSERT INTO stock_sum VALUES (NEW.item_id, NEW.place_id, coalesce(NEW.job_id, 0), 0, 0) ON CONFLICT DO NOTHING;
  UPDATE stock_sum SET quantity = quantity + NEW.quantity, value = value + NEW.value
    WHERE item_id = NEW.item_id AND place_id = NEW.place_id AND job_id = coalesce(NEW.job_id, 0);
  INSERT INTO stock_spot VALUES (NEW.item_id, NEW.place_id, coalesce(NEW.job_id, 0), coalesce(NEW.bin_id, 0), coalesce(NEW.lot_id, 0), 0) ON CONFLICT DO NOTHING;
  UPDATE stock_spot SET quantity = quantity + NEW.quantity
    WHERE item_id = NEW.item_id AND place_id = NEW.place_id AND job_id = coalesce(NEW.job_id, 0) AND bin_id = coalesce(NEW.bin_id, 0) AND lot_id = coalesce(NEW.lot_id, 0);
  SELECT RAISE(ABORT, 'a serial number lies in one place') WHERE NEW.quantity > 0 AND NEW.lot_id IS NOT NULL AND (SELECT tracking FROM item WHERE id = NEW.item_id) = 'serial'
    AND (SELECT sum(quantity) FROM stock_spot WHERE lot_id = NEW.lot_id AND lot_id > 0) > 10000;
END;

-- Whose stock an issue came from: null for stores, else the job's own, whose cost is on its tab already.
ALTER TABLE issue ADD COLUMN owner_id INTEGER REFERENCES job(id);

-- Of a line: what is here and not released, what was rejected and lies here, and what was sent back and is not wanted again.
ALTER TABLE order_line ADD COLUMN held INTEGER NOT NULL DEFAULT 0 CHECK (held >= 0);
ALTER TABLE order_line ADD COLUMN rejected INTEGER NOT NULL DEFAULT 0 CHECK (rejected >= 0);
ALTER TABLE order_line ADD COLUMN given_up INTEGER NOT NULL DEFAULT 0 CHECK (given_up >= 0);
ALTER TABLE order_line ADD COLUMN inspected INTEGER NOT NULL DEFAULT 0 CHECK (inspected IN (0, 1));
ALTER TABLE order_line ADD COLUMN certificate INTEGER NOT NULL DEFAULT 0 CHECK (certificate IN (0, 1));
CREATE INDEX order_line_held ON order_line(order_id) WHERE held > 0;
CREATE INDEX order_line_rejected ON order_line(order_id) WHERE rejected > 0;
CREATE INDEX purchase_order_awaited ON purchase_order(coalesce(wanted_on, '9999'), id) WHERE state IN ('sent', 'confirmed', 'partIn');
ALTER TABLE split ADD COLUMN given_up INTEGER NOT NULL DEFAULT 0 CHECK (given_up >= 0);

-- What a receipt says: a delivery, what an inspection released or rejected, what went back to the supplier, or what takes one of these back.
ALTER TABLE receipt ADD COLUMN kind TEXT NOT NULL DEFAULT 'delivery' CHECK (kind IN ('delivery','inspection','sentBack','takenBack'));
ALTER TABLE receipt ADD COLUMN carrier TEXT NOT NULL DEFAULT '';
ALTER TABLE receipt ADD COLUMN packages INTEGER;
ALTER TABLE receipt ADD COLUMN place_id INTEGER REFERENCES delivery_place(id);
UPDATE receipt SET kind = 'takenBack' WHERE reverses_id IS NOT NULL;
CREATE INDEX receipt_by_day ON receipt(day, id);
-- Why something is not as it should be, in the company's own words, and what that does.
CREATE TABLE reason (
  id INTEGER PRIMARY KEY, does TEXT NOT NULL CHECK (does IN ('toCome','cancelled','missing','damaged','elsewhere','rejected')), name TEXT NOT NULL COLLATE NOCASE,
  gone INTEGER NOT NULL DEFAULT 0 CHECK (gone IN (0, 1)), version INTEGER NOT NULL DEFAULT 1, UNIQUE (does, name)
) STRICT;
INSERT INTO reason (does, name) VALUES ('toCome', 'Back-ordered'), ('toCome', 'On another delivery'), ('cancelled', 'Cancelled by the supplier'), ('cancelled', 'No longer made'),
  ('missing', 'Missing from the parcel'), ('damaged', 'Damaged on the way'), ('elsewhere', 'Sent elsewhere'),
  ('rejected', 'Wrong part'), ('rejected', 'Out of tolerance'), ('rejected', 'Faulty'), ('rejected', 'Past its date');
-- In the line's unit, as it moved with this receipt: below zero where it went away again.
ALTER TABLE receipt_line ADD COLUMN held INTEGER NOT NULL DEFAULT 0;
ALTER TABLE receipt_line ADD COLUMN rejected INTEGER NOT NULL DEFAULT 0;
ALTER TABLE receipt_line ADD COLUMN given_up INTEGER NOT NULL DEFAULT 0;
ALTER TABLE receipt_line ADD COLUMN reason_id INTEGER REFERENCES reason(id);
ALTER TABLE receipt_split ADD COLUMN given_up INTEGER NOT NULL DEFAULT 0;
-- What of it lies in our own places; the rest went straight to where it is wanted. What came for a job that is under way lies with it.
ALTER TABLE receipt_split ADD COLUMN here INTEGER NOT NULL DEFAULT 0;
UPDATE receipt_split SET here = quantity WHERE EXISTS (
  SELECT 1 FROM split s JOIN order_line l ON l.id = s.line_id JOIN purchase_order o ON o.id = l.order_id JOIN item i ON i.id = l.item_id
    JOIN delivery_place p ON p.id = coalesce(l.place_id, o.place_id) LEFT JOIN job j ON j.id = s.job_id
  WHERE s.id = receipt_split.split_id AND l.kind = 'goods' AND i.kind IN ('material','part')
    AND (s.job_id IS NULL OR (p.kind = 'own' AND i.tracking = 'none' AND j.state = 'live')));
-- Numbers of what is held at the door or was rejected, which lies in no store; each as it moved with this receipt.
CREATE TABLE receipt_lot (
  receipt_id INTEGER NOT NULL REFERENCES receipt(id), line_id INTEGER NOT NULL REFERENCES order_line(id), lot_id INTEGER NOT NULL REFERENCES lot(id),
  held INTEGER NOT NULL DEFAULT 0, rejected INTEGER NOT NULL DEFAULT 0, PRIMARY KEY (receipt_id, line_id, lot_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX receipt_lot_by_line ON receipt_lot(line_id, lot_id);
CREATE INDEX receipt_lot_by_lot ON receipt_lot(lot_id);
-- What became of the rest of a line when a part of it came.
CREATE TABLE rest (
  id INTEGER PRIMARY KEY, receipt_id INTEGER NOT NULL REFERENCES receipt(id), line_id INTEGER NOT NULL REFERENCES order_line(id), reason_id INTEGER NOT NULL REFERENCES reason(id),
  quantity INTEGER NOT NULL CHECK (quantity > 0), promised_on TEXT, note TEXT NOT NULL DEFAULT ''
) STRICT;
CREATE INDEX rest_by_line ON rest(line_id, id);
CREATE INDEX rest_by_receipt ON rest(receipt_id);

-- How much more than was ordered is taken in without a question, in hundredths of a percent: the company's, or a supplier's own.
ALTER TABLE company ADD COLUMN over_delivery INTEGER NOT NULL DEFAULT 0 CHECK (over_delivery BETWEEN 0 AND 10000);
ALTER TABLE supplier ADD COLUMN over_delivery INTEGER CHECK (over_delivery BETWEEN 0 AND 10000);
-- What a counting difference may come to before it takes a manager, in minor units.
ALTER TABLE company ADD COLUMN count_limit INTEGER NOT NULL DEFAULT 10000 CHECK (count_limit >= 0);

-- Since when all goods of a job are there, and whether its lead was told of it.
ALTER TABLE job ADD COLUMN ready_on TEXT;
ALTER TABLE job ADD COLUMN ready_told INTEGER NOT NULL DEFAULT 0 CHECK (ready_told IN (0, 1));
CREATE INDEX job_to_tell ON job(id) WHERE ready_on IS NOT NULL AND ready_told = 0;
-- Whether a person is mailed when the material of a job of theirs is complete.
ALTER TABLE person ADD COLUMN mail_ready INTEGER NOT NULL DEFAULT 0 CHECK (mail_ready IN (0, 1));

-- A count of a place, or of one bin of it: what lies there by the book is written down as it begins.
CREATE TABLE stock_count (
  id INTEGER PRIMARY KEY, number TEXT NOT NULL UNIQUE, place_id INTEGER NOT NULL REFERENCES delivery_place(id), bin_id INTEGER REFERENCES bin(id),
  blind INTEGER NOT NULL CHECK (blind IN (0, 1)), state TEXT NOT NULL CHECK (state IN ('open','counted','posted','dropped')),
  begun_by INTEGER NOT NULL REFERENCES person(id), begun_on TEXT NOT NULL, ended_by INTEGER REFERENCES person(id), ended_on TEXT, version INTEGER NOT NULL DEFAULT 1
) STRICT;
CREATE INDEX stock_count_open ON stock_count(place_id) WHERE state IN ('open','counted');
-- One spot of it: what lay there when the count began, and by the book when it was counted, so that what moves later is no difference.
CREATE TABLE stock_count_line (
  id INTEGER PRIMARY KEY, count_id INTEGER NOT NULL REFERENCES stock_count(id), item_id INTEGER NOT NULL REFERENCES item(id), job_id INTEGER REFERENCES job(id),
  bin_id INTEGER REFERENCES bin(id), lot_id INTEGER REFERENCES lot(id), begun INTEGER NOT NULL, counted INTEGER CHECK (counted >= 0), book INTEGER, reason TEXT NOT NULL DEFAULT ''
) STRICT;
CREATE UNIQUE INDEX stock_count_line_by_spot ON stock_count_line(count_id, item_id, coalesce(job_id, 0), coalesce(bin_id, 0), coalesce(lot_id, 0));
`;
