/** Sign-off: the company's rules of buying and its ladder, who signs for whom, what was asked and what was answered. */
export const name = '008-signoff';

export const up = `
-- What the company watches when something is bought; the share in hundredths of a percent.
CREATE TABLE buying_rule (
  kind TEXT PRIMARY KEY, share INTEGER NOT NULL DEFAULT 0 CHECK (share >= 0), answer TEXT NOT NULL CHECK (answer IN ('off','warn','signOff','forbid'))
) STRICT, WITHOUT ROWID;

-- The ladder, in the order of places; a step that was taken out stays, for what was signed by it.
CREATE TABLE ladder_step (
  id INTEGER PRIMARY KEY, place INTEGER NOT NULL, value_above INTEGER, over_above INTEGER, cost_code_id INTEGER REFERENCES cost_code(id), supplier_id INTEGER REFERENCES supplier(id),
  job_kind TEXT CHECK (job_kind IN ('contract','repair','make')), currency TEXT, on_rule INTEGER NOT NULL DEFAULT 0, gone INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE TABLE ladder_signer (
  step_id INTEGER NOT NULL REFERENCES ladder_step(id), place INTEGER NOT NULL, kind TEXT NOT NULL CHECK (kind IN ('person','role','lead')),
  person_id INTEGER REFERENCES person(id), role TEXT, PRIMARY KEY (step_id, place),
  CHECK ((kind = 'person') = (person_id IS NOT NULL) AND (kind = 'role') = (role IS NOT NULL))
) STRICT, WITHOUT ROWID;
-- How much more than was signed an order may come to without asking again.
ALTER TABLE company ADD COLUMN sign_tolerance_share INTEGER NOT NULL DEFAULT 200;
ALTER TABLE company ADD COLUMN sign_tolerance_most INTEGER NOT NULL DEFAULT 2500;
-- Up to what a person may sign for an order that they wrote on, in minor units of the company's currency.
ALTER TABLE person ADD COLUMN own_limit INTEGER NOT NULL DEFAULT 0 CHECK (own_limit >= 0);
CREATE TABLE deputy (
  id INTEGER PRIMARY KEY, person_id INTEGER NOT NULL REFERENCES person(id), deputy_id INTEGER NOT NULL REFERENCES person(id), from_day TEXT NOT NULL, to_day TEXT NOT NULL,
  CHECK (person_id <> deputy_id AND from_day <= to_day)
) STRICT;
CREATE INDEX deputy_by_person ON deputy(person_id, to_day);

-- Everybody who wrote on an order.
CREATE TABLE order_writer (
  order_id INTEGER NOT NULL REFERENCES purchase_order(id), person_id INTEGER NOT NULL REFERENCES person(id), PRIMARY KEY (order_id, person_id)
) STRICT, WITHOUT ROWID;
INSERT INTO order_writer SELECT id, made_by FROM purchase_order;

-- One asking for the signatures of an order, or of a revision of it.
CREATE TABLE sign_round (
  id INTEGER PRIMARY KEY, order_id INTEGER NOT NULL REFERENCES purchase_order(id), revision INTEGER NOT NULL, value INTEGER NOT NULL, note TEXT NOT NULL DEFAULT '',
  state TEXT NOT NULL CHECK (state IN ('open','signed','refused','takenBack')), person_id INTEGER NOT NULL REFERENCES person(id), day TEXT NOT NULL, at TEXT NOT NULL
) STRICT;
CREATE UNIQUE INDEX sign_round_open ON sign_round(order_id) WHERE state = 'open';
CREATE INDEX sign_round_by_order ON sign_round(order_id);
-- A signature that was asked for; what it is about as JSON: [{jobId, costCodeId, value}].
CREATE TABLE sign_off (
  id INTEGER PRIMARY KEY, round_id INTEGER NOT NULL REFERENCES sign_round(id), step_id INTEGER NOT NULL REFERENCES ladder_step(id), place INTEGER NOT NULL, words TEXT NOT NULL,
  by_person INTEGER REFERENCES person(id), by_role TEXT, supplier_id INTEGER NOT NULL REFERENCES supplier(id), about TEXT NOT NULL,
  state TEXT NOT NULL CHECK (state IN ('waiting','signed','refused','gone')), handed_to INTEGER REFERENCES person(id), handed_by INTEGER REFERENCES person(id),
  decided_by INTEGER REFERENCES person(id), for_id INTEGER REFERENCES person(id), reason TEXT NOT NULL DEFAULT '', day TEXT, at TEXT,
  CHECK ((by_person IS NULL) <> (by_role IS NULL))
) STRICT;
CREATE INDEX sign_off_by_round ON sign_off(round_id, place);
CREATE INDEX sign_off_waiting ON sign_off(round_id, place) WHERE state = 'waiting';

-- Mails to our own people; each goes once, after what it tells of is in the file.
CREATE TABLE notice (
  id INTEGER PRIMARY KEY, person_id INTEGER NOT NULL REFERENCES person(id), subject TEXT NOT NULL, body TEXT NOT NULL, path TEXT NOT NULL, order_id INTEGER REFERENCES purchase_order(id),
  state TEXT NOT NULL CHECK (state IN ('waiting','sending','taken','failed')), answer TEXT NOT NULL DEFAULT '', at TEXT NOT NULL
) STRICT;
CREATE INDEX notice_waiting ON notice(id) WHERE state IN ('waiting','sending');
CREATE INDEX notice_by_order ON notice(order_id);

-- Why nothing is to be bought for a job for now.
ALTER TABLE job ADD COLUMN on_hold TEXT;
`;
