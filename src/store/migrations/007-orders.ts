/**
 * The order in full: discounts and charges of their own kinds, places of delivery, numbers set by hand, what the supplier
 * confirmed, revisions of what was sent, and files that go with it.
 */
export const name = '007-orders';

export const up = `
-- A place of delivery: our own, a job's site, one of a customer's, a supplier's, or one typed for an order.
ALTER TABLE delivery_place ADD COLUMN kind TEXT NOT NULL DEFAULT 'own' CHECK (kind IN ('own','site','customer','supplier','once'));
ALTER TABLE delivery_place ADD COLUMN customer_id INTEGER REFERENCES customer(id);
ALTER TABLE delivery_place ADD COLUMN supplier_id INTEGER REFERENCES supplier(id);
ALTER TABLE delivery_place ADD COLUMN what_for TEXT NOT NULL DEFAULT '';
ALTER TABLE delivery_place ADD COLUMN closed INTEGER NOT NULL DEFAULT 0;
ALTER TABLE delivery_place ADD COLUMN version INTEGER NOT NULL DEFAULT 1;
UPDATE delivery_place SET kind = 'site' WHERE job_id IS NOT NULL;
INSERT INTO delivery_place (name, address, kind, supplier_id) SELECT name, address, 'supplier', id FROM supplier WHERE address <> '';
INSERT INTO delivery_place (name, address, kind, supplier_id, what_for)
  SELECT s.name || ', ' || a.what_for, a.address, 'supplier', s.id, a.what_for FROM supplier_address a JOIN supplier s ON s.id = a.supplier_id;
CREATE INDEX delivery_place_by_kind ON delivery_place(kind, supplier_id, customer_id, job_id);
CREATE VIEW find_delivery_place AS SELECT id, name || ' ' || address AS words FROM delivery_place WHERE kind <> 'once' AND closed = 0;
INSERT INTO find (rowid, words) SELECT 12000000000000 + id, words FROM find_delivery_place;
CREATE TRIGGER find_delivery_place_made AFTER INSERT ON delivery_place BEGIN
  INSERT INTO find (rowid, words) SELECT 12000000000000 + id, words FROM find_delivery_place WHERE id = NEW.id;
END;
CREATE TRIGGER find_delivery_place_changed AFTER UPDATE ON delivery_place BEGIN
  DELETE FROM find WHERE rowid = 12000000000000 + NEW.id;
  INSERT INTO find (rowid, words) SELECT 12000000000000 + id, words FROM find_delivery_place WHERE id = NEW.id;
END;
CREATE TRIGGER find_delivery_place_gone AFTER DELETE ON delivery_place BEGIN DELETE FROM find WHERE rowid = 12000000000000 + OLD.id; END;

-- The last revision that went out, 0 being the order as it was first sent; the count its number was made of, null where it was set by hand.
ALTER TABLE purchase_order ADD COLUMN revision INTEGER NOT NULL DEFAULT 0;
ALTER TABLE purchase_order ADD COLUMN counted INTEGER;
ALTER TABLE purchase_order ADD COLUMN latest_on TEXT;
ALTER TABLE purchase_order ADD COLUMN carrier_service TEXT NOT NULL DEFAULT '';
ALTER TABLE purchase_order ADD COLUMN site_contact TEXT NOT NULL DEFAULT '';
ALTER TABLE purchase_order ADD COLUMN their_number TEXT NOT NULL DEFAULT '';
ALTER TABLE purchase_order ADD COLUMN rate_on TEXT;
CREATE INDEX purchase_order_by_their_number ON purchase_order(their_number COLLATE NOCASE) WHERE their_number <> '';
-- Counts that were given up, for the next order where the company wants no gaps.
CREATE TABLE free_number (series TEXT NOT NULL, count INTEGER NOT NULL, PRIMARY KEY (series, count)) STRICT, WITHOUT ROWID;
ALTER TABLE company ADD COLUMN order_gaps TEXT NOT NULL DEFAULT 'leave' CHECK (order_gaps IN ('leave','fill'));

-- A discount in hundredths of a percent: of a line it lies between gross price and price; of a charge it is of the lines.
ALTER TABLE order_line ADD COLUMN gross_price INTEGER;
ALTER TABLE order_line ADD COLUMN discount INTEGER NOT NULL DEFAULT 0 CHECK (discount BETWEEN 0 AND 10000);
ALTER TABLE order_line ADD COLUMN free INTEGER NOT NULL DEFAULT 0;
ALTER TABLE order_line ADD COLUMN note TEXT NOT NULL DEFAULT '';
ALTER TABLE order_line ADD COLUMN place_id INTEGER REFERENCES delivery_place(id);
ALTER TABLE order_line ADD COLUMN charge_kind TEXT CHECK (charge_kind IN ('carriage','handling','certificate','smallOrder','tooling','discount','other'));
ALTER TABLE order_line ADD COLUMN spread TEXT NOT NULL DEFAULT 'value' CHECK (spread IN ('value','quantity','weight','amounts'));
-- Kilograms of one share unit, in ten-thousandths.
ALTER TABLE order_line ADD COLUMN weight INTEGER;
UPDATE order_line SET charge_kind = CASE WHEN carriage = 1 THEN 'carriage' WHEN net < 0 THEN 'discount' ELSE 'other' END WHERE kind = 'charge';
ALTER TABLE order_line DROP COLUMN carriage;
-- Of a charge that is shared out by amounts: this part, in minor units of the order's currency.
ALTER TABLE split ADD COLUMN amount INTEGER;

-- The last day to order what is open of a need, kept by the tab's needs; null without a day or a supplier.
ALTER TABLE need ADD COLUMN order_by TEXT;
CREATE INDEX need_open_by_order_day ON need(order_by, id) WHERE open > 0;

CREATE INDEX order_line_by_our_number ON order_line(our_number COLLATE NOCASE, order_id) WHERE our_number <> '';
CREATE INDEX order_line_by_their_number ON order_line(their_number COLLATE NOCASE, order_id) WHERE their_number <> '';
-- What the supplier said last of each line; every answer is kept besides.
ALTER TABLE order_line ADD COLUMN promised_on TEXT;
ALTER TABLE order_line ADD COLUMN confirmed INTEGER;
ALTER TABLE order_line ADD COLUMN confirmed_price INTEGER;
CREATE INDEX order_line_by_promise ON order_line(promised_on, order_id) WHERE promised_on IS NOT NULL;
CREATE TABLE confirmation (
  id INTEGER PRIMARY KEY, order_id INTEGER NOT NULL REFERENCES purchase_order(id), revision INTEGER NOT NULL, their_number TEXT NOT NULL DEFAULT '', note TEXT NOT NULL DEFAULT '',
  person_id INTEGER NOT NULL REFERENCES person(id), day TEXT NOT NULL, at TEXT NOT NULL
) STRICT;
CREATE INDEX confirmation_by_order ON confirmation(order_id);
CREATE TABLE confirmation_line (
  confirmation_id INTEGER NOT NULL REFERENCES confirmation(id), line_id INTEGER NOT NULL, quantity INTEGER NOT NULL, price INTEGER, promised_on TEXT, PRIMARY KEY (confirmation_id, line_id)
) STRICT, WITHOUT ROWID;

-- What was sent, as it stood; and a revision that is being written, as it is typed.
CREATE TABLE order_revision (
  order_id INTEGER NOT NULL REFERENCES purchase_order(id), number INTEGER NOT NULL, reason TEXT NOT NULL, sent TEXT NOT NULL, document_id INTEGER REFERENCES document(id),
  person_id INTEGER NOT NULL REFERENCES person(id), day TEXT NOT NULL, at TEXT NOT NULL, PRIMARY KEY (order_id, number)
) STRICT, WITHOUT ROWID;
CREATE TABLE order_change (
  order_id INTEGER PRIMARY KEY REFERENCES purchase_order(id), reason TEXT NOT NULL, content TEXT NOT NULL, person_id INTEGER NOT NULL REFERENCES person(id), at TEXT NOT NULL
) STRICT;

-- A document is a paper we made, or a file that was brought in, with the revision it is of.
ALTER TABLE document ADD COLUMN role TEXT NOT NULL DEFAULT 'paper' CHECK (role IN ('paper','file'));
ALTER TABLE document ADD COLUMN revision TEXT NOT NULL DEFAULT '';
ALTER TABLE document ADD COLUMN size INTEGER NOT NULL DEFAULT 0;
ALTER TABLE document ADD COLUMN person_id INTEGER REFERENCES person(id);
ALTER TABLE document ADD COLUMN gone_on TEXT;
UPDATE document SET size = length(bytes);
CREATE TABLE order_file (
  order_id INTEGER NOT NULL REFERENCES purchase_order(id), document_id INTEGER NOT NULL REFERENCES document(id), place INTEGER NOT NULL, PRIMARY KEY (order_id, document_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX order_file_by_document ON order_file(document_id);

-- A message says what it was for; what went with it is kept beside it.
ALTER TABLE message ADD COLUMN kind TEXT NOT NULL DEFAULT 'order' CHECK (kind IN ('order','revision','chase'));
ALTER TABLE message ADD COLUMN copy_to TEXT NOT NULL DEFAULT '';
CREATE TABLE message_file (message_id INTEGER NOT NULL REFERENCES message(id), document_id INTEGER NOT NULL REFERENCES document(id), PRIMARY KEY (message_id, document_id)) STRICT, WITHOUT ROWID;
-- Words of a mail: the company's own where supplier_id is null, else a supplier's.
CREATE TABLE mail_words (
  id INTEGER PRIMARY KEY, supplier_id INTEGER REFERENCES supplier(id), kind TEXT NOT NULL CHECK (kind IN ('order','revision','chase')), subject TEXT NOT NULL, body TEXT NOT NULL
) STRICT;
CREATE UNIQUE INDEX mail_words_by_supplier ON mail_words(coalesce(supplier_id, 0), kind);
ALTER TABLE supplier_contact ADD COLUMN gets_orders INTEGER NOT NULL DEFAULT 0;
-- Which data files go with an order, by commas: ubl, csv.
ALTER TABLE supplier ADD COLUMN data_files TEXT NOT NULL DEFAULT '';
ALTER TABLE person ADD COLUMN copies INTEGER NOT NULL DEFAULT 0;
-- The digest of the token under which a person's calendar reads what is expected.
ALTER TABLE person ADD COLUMN feed_hash TEXT;
CREATE UNIQUE INDEX person_by_feed ON person(feed_hash) WHERE feed_hash IS NOT NULL;
-- Words that stand on orders to a supplier, or for a kind of job; on all of them where neither is said.
CREATE TABLE text_block (
  id INTEGER PRIMARY KEY, place INTEGER NOT NULL, words TEXT NOT NULL, supplier_id INTEGER REFERENCES supplier(id), job_kind TEXT CHECK (job_kind IN ('contract','repair','make'))
) STRICT;
`;
