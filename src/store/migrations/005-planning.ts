/**
 * What a buy list is worked out from: kinds of items, bills of materials, a job's plan, and stores as far as planning
 * needs them. Moves of stock are never changed; what they come to is kept beside them by a trigger, as the ledger's is.
 */
export const name = '005-planning';

export const up = `
ALTER TABLE item ADD COLUMN sort TEXT NOT NULL DEFAULT 'part' CHECK (sort IN ('material','part','service','subcontract','hire','charge'));
UPDATE item SET sort = 'service' WHERE kind = 'service';
ALTER TABLE item DROP COLUMN kind;
ALTER TABLE item RENAME COLUMN sort TO kind;
ALTER TABLE item ADD COLUMN bought INTEGER NOT NULL DEFAULT 1;
ALTER TABLE item ADD COLUMN tracking TEXT NOT NULL DEFAULT 'none' CHECK (tracking IN ('none','lot','serial'));
ALTER TABLE item ADD COLUMN certificate INTEGER NOT NULL DEFAULT 0;
-- Kilograms of one of the item's units, in ten-thousandths.
ALTER TABLE item ADD COLUMN weight INTEGER;

-- Lines of a quote: how they are got, whether the customer may leave them out, what is put on their cost, and whether the
-- customer agreed to them (null while that is open).
DROP INDEX quote_line_sums;
ALTER TABLE quote_line ADD COLUMN got TEXT NOT NULL DEFAULT 'bought' CHECK (got IN ('bought','allowance','made','labour','customer'));
UPDATE quote_line SET got = kind;
ALTER TABLE quote_line DROP COLUMN kind;
ALTER TABLE quote_line RENAME COLUMN got TO kind;
ALTER TABLE quote_line ADD COLUMN optional INTEGER NOT NULL DEFAULT 0;
ALTER TABLE quote_line ADD COLUMN markup INTEGER;
ALTER TABLE quote_line ADD COLUMN agreed INTEGER;
UPDATE quote_line SET agreed = 1 WHERE quote_id IN (SELECT id FROM quote WHERE state = 'won');
CREATE INDEX quote_line_sums ON quote_line(quote_id, kind, cost_code_id, optional, agreed, net, price_net);
-- What a quote says to the customer, what the customer's yes brought along, and the quote that took its place.
ALTER TABLE quote ADD COLUMN takes TEXT NOT NULL DEFAULT '';
ALTER TABLE quote ADD COLUMN valid_until TEXT;
ALTER TABLE quote ADD COLUMN words TEXT NOT NULL DEFAULT '';
ALTER TABLE quote ADD COLUMN moved_by INTEGER REFERENCES person(id);
ALTER TABLE quote ADD COLUMN moved_on TEXT;
ALTER TABLE quote ADD COLUMN revised_as INTEGER REFERENCES quote(id);
ALTER TABLE job ADD COLUMN customer_order TEXT NOT NULL DEFAULT '';
ALTER TABLE job ADD COLUMN customer_order_on TEXT;
ALTER TABLE job ADD COLUMN delivery_address TEXT NOT NULL DEFAULT '';
ALTER TABLE job ADD COLUMN planner_id INTEGER REFERENCES person(id);

-- What the company looks over before work starts, by kind of job, and who did for which job; or why it was waived.
CREATE TABLE review_point (
  id INTEGER PRIMARY KEY, job_kind TEXT NOT NULL CHECK (job_kind IN ('contract','repair','make')), place INTEGER NOT NULL, words TEXT NOT NULL, gone INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE TABLE job_review (
  job_id INTEGER NOT NULL REFERENCES job(id), point_id INTEGER NOT NULL REFERENCES review_point(id), person_id INTEGER NOT NULL REFERENCES person(id), day TEXT NOT NULL,
  PRIMARY KEY (job_id, point_id)
) STRICT, WITHOUT ROWID;
ALTER TABLE job ADD COLUMN review_waived TEXT;
ALTER TABLE job ADD COLUMN review_waived_by INTEGER REFERENCES person(id);
-- Buying before the customer said yes: why, and who took it upon them.
ALTER TABLE quote ADD COLUMN early_reason TEXT;
ALTER TABLE quote ADD COLUMN early_by INTEGER REFERENCES person(id);

-- A bill of materials: one version of how an item is made, from a day on.
CREATE TABLE bom (
  id INTEGER PRIMARY KEY, item_id INTEGER NOT NULL REFERENCES item(id), from_day TEXT NOT NULL, note TEXT NOT NULL DEFAULT '',
  -- Working days that making takes.
  making_days INTEGER NOT NULL DEFAULT 0, made_by INTEGER NOT NULL REFERENCES person(id), version INTEGER NOT NULL DEFAULT 1, UNIQUE (item_id, from_day)
) STRICT;
CREATE TABLE bom_line (
  id INTEGER PRIMARY KEY AUTOINCREMENT, bom_id INTEGER NOT NULL REFERENCES bom(id), place INTEGER NOT NULL, got_by TEXT NOT NULL CHECK (got_by IN ('bought','made','labour')),
  item_id INTEGER REFERENCES item(id), description TEXT NOT NULL, quantity INTEGER NOT NULL CHECK (quantity > 0), unit TEXT NOT NULL,
  -- For each piece made, or once for the whole batch.
  per TEXT NOT NULL DEFAULT 'piece' CHECK (per IN ('piece','batch')),
  -- What is lost on the way, in hundredths of a percent of what is needed.
  scrap INTEGER NOT NULL DEFAULT 0 CHECK (scrap BETWEEN 0 AND 100000),
  offset_days INTEGER NOT NULL DEFAULT 0 CHECK (offset_days >= 0), offset_from TEXT NOT NULL DEFAULT 'start' CHECK (offset_from IN ('start','end')),
  cost_code_id INTEGER REFERENCES cost_code(id), price INTEGER
) STRICT;
CREATE INDEX bom_line_by_bom ON bom_line(bom_id, place);
CREATE INDEX bom_line_by_item ON bom_line(item_id) WHERE item_id IS NOT NULL;

-- A job's plan: what a bill it took came to, a line for each branch. The line without a parent is what is made.
CREATE TABLE plan_line (
  id INTEGER PRIMARY KEY AUTOINCREMENT, job_id INTEGER NOT NULL REFERENCES job(id), parent_id INTEGER REFERENCES plan_line(id), place INTEGER NOT NULL,
  bom_id INTEGER REFERENCES bom(id), bom_line_id INTEGER, got_by TEXT NOT NULL CHECK (got_by IN ('bought','made','labour')),
  item_id INTEGER REFERENCES item(id), description TEXT NOT NULL, quantity INTEGER NOT NULL CHECK (quantity > 0), unit TEXT NOT NULL,
  starts_on TEXT, needed_on TEXT,
  -- How a part that is made is gone about: its parts belong to the work above it, it is a piece of work of its own, or nothing is bought for it here.
  work TEXT NOT NULL DEFAULT 'within' CHECK (work IN ('within','own','apart')),
  -- Why a line is left out; null for one that is in.
  left_out TEXT,
  version INTEGER NOT NULL DEFAULT 1
) STRICT;
CREATE INDEX plan_line_by_job ON plan_line(job_id, place);
ALTER TABLE need ADD COLUMN plan_line_id INTEGER REFERENCES plan_line(id);
CREATE INDEX need_by_plan_line ON need(plan_line_id) WHERE plan_line_id IS NOT NULL;
-- What of a need is not in, in stores for it or issued yet; 0 means that nothing of it keeps work from starting.
ALTER TABLE need ADD COLUMN missing INTEGER NOT NULL DEFAULT 0;
UPDATE need SET missing = max(quantity - coalesce((SELECT sum(s.received) FROM split s WHERE s.need_id = need.id), 0), 0) WHERE kind = 'goods';
CREATE INDEX need_missing_by_job ON need(job_id) WHERE missing > 0;

-- Stock of an item at a place: the company's own, or a job's. Quantities in the item's unit, values in the company's currency.
CREATE TABLE stock_move (
  id INTEGER PRIMARY KEY, item_id INTEGER NOT NULL REFERENCES item(id), place_id INTEGER NOT NULL REFERENCES delivery_place(id), job_id INTEGER REFERENCES job(id),
  kind TEXT NOT NULL CHECK (kind IN ('counted','received','issued','returned','revalued')), quantity INTEGER NOT NULL, value INTEGER NOT NULL, reason TEXT NOT NULL DEFAULT '',
  split_id INTEGER REFERENCES split(id), issue_id INTEGER REFERENCES issue(id),
  person_id INTEGER NOT NULL REFERENCES person(id), day TEXT NOT NULL, at TEXT NOT NULL
) STRICT;
CREATE INDEX stock_move_by_item ON stock_move(item_id, id);
CREATE INDEX stock_move_by_split ON stock_move(split_id) WHERE split_id IS NOT NULL;
CREATE INDEX stock_move_by_issue ON stock_move(issue_id) WHERE issue_id IS NOT NULL;
CREATE TRIGGER stock_move_is_never_changed BEFORE UPDATE ON stock_move BEGIN SELECT RAISE(ABORT, 'a move of stock is never changed'); END;
CREATE TRIGGER stock_move_is_never_deleted BEFORE DELETE ON stock_move BEGIN SELECT RAISE(ABORT, 'a move of stock is never deleted'); END;
-- 0 stands for the company's own stock.
CREATE TABLE stock_sum (
  item_id INTEGER NOT NULL, place_id INTEGER NOT NULL, job_id INTEGER NOT NULL, quantity INTEGER NOT NULL CHECK (quantity >= 0), value INTEGER NOT NULL, PRIMARY KEY (item_id, place_id, job_id)
) STRICT, WITHOUT ROWID;
CREATE TRIGGER stock_move_is_summed AFTER INSERT ON stock_move BEGIN
  INSERT INTO stock_sum VALUES (NEW.item_id, NEW.place_id, coalesce(NEW.job_id, 0), 0, 0) ON CONFLICT DO NOTHING;
  UPDATE stock_sum SET quantity = quantity + NEW.quantity, value = value + NEW.value
    WHERE item_id = NEW.item_id AND place_id = NEW.place_id AND job_id = coalesce(NEW.job_id, 0);
END;
CREATE TABLE stock_level (
  item_id INTEGER NOT NULL REFERENCES item(id), place_id INTEGER NOT NULL REFERENCES delivery_place(id), keep INTEGER NOT NULL CHECK (keep > 0), PRIMARY KEY (item_id, place_id)
) STRICT, WITHOUT ROWID;

-- What a need is to have from stock at a place, or from a part of an order that goes to stores: firm when a person
-- reserved it, else counted on by a plan. Quantity in the item's unit, share in the need's.
CREATE TABLE reservation (
  id INTEGER PRIMARY KEY, need_id INTEGER NOT NULL REFERENCES need(id), item_id INTEGER NOT NULL REFERENCES item(id),
  place_id INTEGER REFERENCES delivery_place(id), job_id INTEGER REFERENCES job(id), split_id INTEGER REFERENCES split(id),
  quantity INTEGER NOT NULL CHECK (quantity > 0), share INTEGER NOT NULL CHECK (share > 0), firm INTEGER NOT NULL,
  CHECK ((place_id IS NULL) <> (split_id IS NULL))
) STRICT;
CREATE INDEX reservation_by_need ON reservation(need_id);
CREATE INDEX reservation_by_item ON reservation(item_id);
CREATE INDEX reservation_by_split ON reservation(split_id) WHERE split_id IS NOT NULL;

-- What stores gave out to a job, less what came back. Quantity in the item's unit, share in the need's.
CREATE TABLE issue (
  id INTEGER PRIMARY KEY REFERENCES tab_line(id), need_id INTEGER REFERENCES need(id), job_id INTEGER NOT NULL REFERENCES job(id), cost_code_id INTEGER NOT NULL REFERENCES cost_code(id),
  item_id INTEGER NOT NULL REFERENCES item(id), place_id INTEGER NOT NULL REFERENCES delivery_place(id), quantity INTEGER NOT NULL CHECK (quantity >= 0), share INTEGER NOT NULL CHECK (share >= 0),
  value INTEGER NOT NULL, day TEXT NOT NULL, version INTEGER NOT NULL DEFAULT 1
) STRICT;
CREATE INDEX issue_by_job ON issue(job_id, id);
CREATE INDEX issue_by_need ON issue(need_id) WHERE need_id IS NOT NULL;
CREATE INDEX issue_by_item ON issue(item_id, id);

-- What came for stores before stores were kept.
INSERT INTO stock_move (item_id, place_id, kind, quantity, value, split_id, person_id, day, at)
  SELECT l.item_id, o.place_id, 'received', s.received, (2 * s.value * s.received + s.quantity) / (2 * s.quantity), s.id, o.made_by, o.made_on, o.made_at
  FROM split s JOIN order_line l ON l.id = s.line_id JOIN purchase_order o ON o.id = l.order_id JOIN item i ON i.id = l.item_id
  WHERE s.job_id IS NULL AND s.received > 0 AND l.kind = 'goods' AND l.share_unit = i.unit AND i.kind IN ('material','part');
`;
