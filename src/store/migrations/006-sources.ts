/**
 * Where things are had from and for whom: prices with the days they hold, what a supplier is like, quotes for several
 * numbers of pieces, and what of the customer's a job is about.
 */
export const name = '006-sources';

export const up = `
-- A price holds from a day until a day; '2000-01-01' stands for always, null for until further notice.
CREATE TABLE dated_price (
  part_id INTEGER NOT NULL REFERENCES supplier_part(id), from_quantity INTEGER NOT NULL, from_day TEXT NOT NULL DEFAULT '2000-01-01', until_day TEXT,
  price INTEGER NOT NULL, price_quantity INTEGER NOT NULL DEFAULT 1,
  CHECK (until_day IS NULL OR until_day >= from_day), PRIMARY KEY (part_id, from_quantity, from_day)
) STRICT, WITHOUT ROWID;
INSERT INTO dated_price (part_id, from_quantity, price, price_quantity) SELECT part_id, from_quantity, price, price_quantity FROM price_break;
DROP TABLE price_break;
ALTER TABLE dated_price RENAME TO price_break;
ALTER TABLE supplier_part ADD COLUMN version INTEGER NOT NULL DEFAULT 1;
CREATE INDEX supplier_part_by_their_number ON supplier_part(their_number COLLATE NOCASE) WHERE their_number <> '';

-- The smallest order a supplier takes; its working week where it is not the company's; what it delivers, in words.
ALTER TABLE supplier ADD COLUMN terms TEXT NOT NULL DEFAULT '';
ALTER TABLE supplier ADD COLUMN minimum_order INTEGER;
ALTER TABLE supplier ADD COLUMN week TEXT;
ALTER TABLE supplier ADD COLUMN delivers TEXT NOT NULL DEFAULT '';
CREATE TABLE supplier_contact (
  supplier_id INTEGER NOT NULL REFERENCES supplier(id), place INTEGER NOT NULL, name TEXT NOT NULL, what_for TEXT NOT NULL DEFAULT '', email TEXT NOT NULL DEFAULT '', phone TEXT NOT NULL DEFAULT '',
  PRIMARY KEY (supplier_id, place)
) STRICT, WITHOUT ROWID;
CREATE TABLE supplier_address (
  supplier_id INTEGER NOT NULL REFERENCES supplier(id), place INTEGER NOT NULL, what_for TEXT NOT NULL, address TEXT NOT NULL, PRIMARY KEY (supplier_id, place)
) STRICT, WITHOUT ROWID;
CREATE TABLE supplier_closed (
  supplier_id INTEGER NOT NULL REFERENCES supplier(id), from_day TEXT NOT NULL, until_day TEXT NOT NULL, words TEXT NOT NULL DEFAULT '',
  CHECK (until_day >= from_day), PRIMARY KEY (supplier_id, from_day)
) STRICT, WITHOUT ROWID;

-- For how many pieces the lines of a quote are written, and for which other numbers it is priced beside that, by commas.
ALTER TABLE quote ADD COLUMN pieces INTEGER;
ALTER TABLE quote ADD COLUMN also_pieces TEXT NOT NULL DEFAULT '';
-- Whether a line grows with the pieces or is had once for all of them.
ALTER TABLE quote_line ADD COLUMN per TEXT NOT NULL DEFAULT 'piece' CHECK (per IN ('piece','batch'));
-- The line of the won quote that a line of its revision was copied from.
ALTER TABLE quote_line ADD COLUMN from_line_id INTEGER REFERENCES quote_line(id);

-- What of a customer's is worked on: a machine, a vehicle, a building.
CREATE TABLE asset (
  id INTEGER PRIMARY KEY, customer_id INTEGER NOT NULL REFERENCES customer(id), name TEXT NOT NULL, description TEXT NOT NULL DEFAULT '', serial TEXT NOT NULL DEFAULT '', notes TEXT NOT NULL DEFAULT '',
  version INTEGER NOT NULL DEFAULT 1
) STRICT;
CREATE INDEX asset_by_customer ON asset(customer_id, name);
ALTER TABLE job ADD COLUMN asset_id INTEGER REFERENCES asset(id);
`;
