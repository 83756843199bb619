/**
 * The ground that the whole product stands on; from here on steps only add. Amounts are integer minor units of the
 * currency beside them; quantities and unit prices are integers in ten-thousandths; rates of tax are in hundredths of a
 * percent; exchange rates are decimal text; days are ISO text, moments UTC ISO text. What later steps add, and where it
 * joins on, is laid out in docs/schema.md.
 */
export const name = '001-ground';

export const up = `
CREATE TABLE company (
  id INTEGER PRIMARY KEY CHECK (id = 1),
  name TEXT NOT NULL, address TEXT NOT NULL, email TEXT NOT NULL, tax_number TEXT NOT NULL DEFAULT '',
  currency TEXT NOT NULL, country TEXT NOT NULL DEFAULT 'GB', week TEXT NOT NULL DEFAULT '1,2,3,4,5', receiving_days INTEGER NOT NULL DEFAULT 1,
  order_pattern TEXT NOT NULL DEFAULT 'K{yy}-{0000}', order_terms TEXT NOT NULL DEFAULT '',
  freight_code_id INTEGER REFERENCES cost_code(id),
  price_tolerance_share INTEGER NOT NULL DEFAULT 200, price_tolerance_most INTEGER NOT NULL DEFAULT 500, own_pass_limit INTEGER NOT NULL DEFAULT 0,
  version INTEGER NOT NULL DEFAULT 1
) STRICT;
CREATE TABLE day_off (day TEXT PRIMARY KEY, name TEXT NOT NULL) STRICT;
CREATE TABLE counter (name TEXT PRIMARY KEY, last INTEGER NOT NULL) STRICT;

CREATE TABLE person (
  id INTEGER PRIMARY KEY, name TEXT NOT NULL, email TEXT NOT NULL UNIQUE COLLATE NOCASE, password_hash TEXT NOT NULL,
  theme TEXT NOT NULL DEFAULT 'day', active INTEGER NOT NULL DEFAULT 1, version INTEGER NOT NULL DEFAULT 1
) STRICT;
CREATE TABLE person_role (person_id INTEGER NOT NULL REFERENCES person(id), role TEXT NOT NULL, PRIMARY KEY (person_id, role)) STRICT, WITHOUT ROWID;
CREATE TABLE sign_in_attempt (id INTEGER PRIMARY KEY, email TEXT NOT NULL COLLATE NOCASE, at TEXT NOT NULL, good INTEGER NOT NULL) STRICT;
CREATE INDEX sign_in_attempt_by_email ON sign_in_attempt(email, at);
CREATE TABLE open_job (
  person_id INTEGER NOT NULL REFERENCES person(id), job_id INTEGER NOT NULL REFERENCES job(id), place INTEGER NOT NULL,
  PRIMARY KEY (person_id, job_id)
) STRICT, WITHOUT ROWID;

CREATE TABLE cost_code (id INTEGER PRIMARY KEY, code TEXT NOT NULL UNIQUE, name TEXT NOT NULL) STRICT;
CREATE TABLE tax_code (
  id INTEGER PRIMARY KEY, name TEXT NOT NULL UNIQUE, category TEXT NOT NULL DEFAULT 'S', rate INTEGER NOT NULL CHECK (rate >= 0),
  recoverable INTEGER NOT NULL CHECK (recoverable BETWEEN 0 AND 10000)
) STRICT;
CREATE TABLE exchange_rate (currency TEXT NOT NULL, day TEXT NOT NULL, rate TEXT NOT NULL, PRIMARY KEY (currency, day)) STRICT, WITHOUT ROWID;
CREATE TABLE customer (id INTEGER PRIMARY KEY, name TEXT NOT NULL UNIQUE COLLATE NOCASE) STRICT;
CREATE TABLE delivery_place (id INTEGER PRIMARY KEY, name TEXT NOT NULL, address TEXT NOT NULL, instructions TEXT NOT NULL DEFAULT '', job_id INTEGER REFERENCES job(id)) STRICT;

CREATE TABLE supplier (
  id INTEGER PRIMARY KEY, name TEXT NOT NULL UNIQUE COLLATE NOCASE, contact TEXT NOT NULL DEFAULT '', email TEXT, address TEXT NOT NULL DEFAULT '',
  currency TEXT NOT NULL, payment_days INTEGER NOT NULL DEFAULT 30, lead_days INTEGER NOT NULL DEFAULT 5,
  carriage INTEGER NOT NULL DEFAULT 0, carriage_free_from INTEGER, tax_code_id INTEGER NOT NULL REFERENCES tax_code(id),
  carrier TEXT NOT NULL DEFAULT '', version INTEGER NOT NULL DEFAULT 1
) STRICT;
CREATE TABLE item (
  id INTEGER PRIMARY KEY, number TEXT NOT NULL UNIQUE COLLATE NOCASE, name TEXT NOT NULL, unit TEXT NOT NULL,
  kind TEXT NOT NULL DEFAULT 'goods' CHECK (kind IN ('goods','service')), stocked INTEGER NOT NULL DEFAULT 0,
  cost_code_id INTEGER REFERENCES cost_code(id), supplier_id INTEGER REFERENCES supplier(id), version INTEGER NOT NULL DEFAULT 1
) STRICT;
CREATE TABLE supplier_part (
  id INTEGER PRIMARY KEY, supplier_id INTEGER NOT NULL REFERENCES supplier(id), item_id INTEGER NOT NULL REFERENCES item(id),
  their_number TEXT NOT NULL DEFAULT '', unit TEXT NOT NULL, factor_many INTEGER NOT NULL DEFAULT 1, factor_one INTEGER NOT NULL DEFAULT 1,
  minimum INTEGER NOT NULL DEFAULT 0, pack INTEGER NOT NULL DEFAULT 0, lead_days INTEGER, UNIQUE (supplier_id, item_id)
) STRICT;
CREATE INDEX supplier_part_by_item ON supplier_part(item_id);
CREATE TABLE price_break (
  part_id INTEGER NOT NULL REFERENCES supplier_part(id), from_quantity INTEGER NOT NULL, price INTEGER NOT NULL, price_quantity INTEGER NOT NULL DEFAULT 1,
  PRIMARY KEY (part_id, from_quantity)
) STRICT, WITHOUT ROWID;

CREATE TABLE job (
  id INTEGER PRIMARY KEY, number TEXT NOT NULL UNIQUE, name TEXT NOT NULL, short_name TEXT NOT NULL, kind TEXT NOT NULL CHECK (kind IN ('contract','repair','make')),
  state TEXT NOT NULL CHECK (state IN ('quoted','live','complete','lost')), customer_id INTEGER NOT NULL REFERENCES customer(id), lead_id INTEGER NOT NULL REFERENCES person(id),
  site TEXT NOT NULL DEFAULT '', planning TEXT NOT NULL DEFAULT 'inFull' CHECK (planning IN ('inFull','shortfall')), starts_on TEXT, due_on TEXT, due_words TEXT NOT NULL DEFAULT 'Due',
  version INTEGER NOT NULL DEFAULT 1
) STRICT;
CREATE INDEX job_by_state ON job(state, number);
CREATE TABLE budget_entry (
  id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job(id), cost_code_id INTEGER NOT NULL REFERENCES cost_code(id), kind TEXT NOT NULL CHECK (kind IN ('opening','change')),
  amount INTEGER NOT NULL, reason TEXT NOT NULL, quote_id INTEGER REFERENCES quote(id), person_id INTEGER NOT NULL REFERENCES person(id), day TEXT NOT NULL, at TEXT NOT NULL
) STRICT;
CREATE INDEX budget_entry_by_job ON budget_entry(job_id, cost_code_id, day, amount);

CREATE TABLE quote (
  id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job(id), number TEXT NOT NULL UNIQUE, state TEXT NOT NULL CHECK (state IN ('writing','withCustomer','won','lost')),
  won_by TEXT, won_on TEXT, marked_by INTEGER REFERENCES person(id), version INTEGER NOT NULL DEFAULT 1
) STRICT;
CREATE INDEX quote_by_job ON quote(job_id);
CREATE TABLE quote_line (
  id INTEGER PRIMARY KEY, quote_id INTEGER NOT NULL REFERENCES quote(id), place INTEGER NOT NULL, kind TEXT NOT NULL CHECK (kind IN ('bought','allowance','made','labour')),
  item_id INTEGER REFERENCES item(id), description TEXT NOT NULL, quantity INTEGER NOT NULL CHECK (quantity > 0), unit TEXT NOT NULL, cost INTEGER NOT NULL, price INTEGER,
  cost_code_id INTEGER NOT NULL REFERENCES cost_code(id), supplier_id INTEGER REFERENCES supplier(id), needed_on TEXT,
  net INTEGER NOT NULL, price_net INTEGER
) STRICT;
CREATE INDEX quote_line_by_quote ON quote_line(quote_id, place);
CREATE INDEX quote_line_sums ON quote_line(quote_id, kind, cost_code_id, net, price_net);
CREATE TABLE quote_file (
  id INTEGER PRIMARY KEY, quote_id INTEGER NOT NULL REFERENCES quote(id), name TEXT NOT NULL, bytes BLOB NOT NULL, person_id INTEGER NOT NULL REFERENCES person(id), at TEXT NOT NULL, used INTEGER NOT NULL DEFAULT 0
) STRICT;

CREATE TABLE tab_line (id INTEGER PRIMARY KEY AUTOINCREMENT, kind TEXT NOT NULL, words TEXT NOT NULL) STRICT;
CREATE INDEX tab_line_by_kind ON tab_line(kind, id);

CREATE TABLE need (
  id INTEGER PRIMARY KEY REFERENCES tab_line(id), job_id INTEGER NOT NULL REFERENCES job(id), quote_line_id INTEGER REFERENCES quote_line(id), item_id INTEGER REFERENCES item(id),
  kind TEXT NOT NULL DEFAULT 'goods' CHECK (kind IN ('goods','service')), description TEXT NOT NULL, quantity INTEGER NOT NULL CHECK (quantity >= 0), unit TEXT NOT NULL,
  cost_code_id INTEGER NOT NULL REFERENCES cost_code(id), price INTEGER, price_quantity INTEGER NOT NULL DEFAULT 1,
  supplier_id INTEGER REFERENCES supplier(id), needed_on TEXT, added_on TEXT NOT NULL, open INTEGER NOT NULL DEFAULT 0, version INTEGER NOT NULL DEFAULT 1
) STRICT;
CREATE INDEX need_by_job ON need(job_id, id);
CREATE INDEX need_by_quote_line ON need(quote_line_id) WHERE quote_line_id IS NOT NULL;
CREATE INDEX need_open ON need(supplier_id, needed_on, id) WHERE open > 0;
CREATE INDEX need_open_by_day ON need(needed_on) WHERE open > 0;
CREATE INDEX need_open_by_job ON need(job_id, id) WHERE open > 0;

CREATE TABLE purchase_order (
  id INTEGER PRIMARY KEY, number TEXT NOT NULL UNIQUE, supplier_id INTEGER NOT NULL REFERENCES supplier(id), state TEXT NOT NULL, sent_from TEXT,
  currency TEXT NOT NULL, rate TEXT NOT NULL, place_id INTEGER NOT NULL REFERENCES delivery_place(id), wanted_on TEXT, carrier TEXT NOT NULL DEFAULT '', instructions TEXT NOT NULL DEFAULT '',
  net INTEGER NOT NULL DEFAULT 0, gross INTEGER NOT NULL DEFAULT 0, made_by INTEGER NOT NULL REFERENCES person(id), made_on TEXT NOT NULL, made_at TEXT NOT NULL, sent_on TEXT, version INTEGER NOT NULL DEFAULT 1
) STRICT;
CREATE INDEX purchase_order_by_state ON purchase_order(state, id);
CREATE INDEX purchase_order_by_wanted ON purchase_order(state, wanted_on, id);
CREATE INDEX purchase_order_by_supplier ON purchase_order(supplier_id, state, net);
CREATE TABLE order_line (
  id INTEGER PRIMARY KEY AUTOINCREMENT, order_id INTEGER NOT NULL REFERENCES purchase_order(id), place INTEGER NOT NULL, kind TEXT NOT NULL CHECK (kind IN ('goods','service','charge')),
  carriage INTEGER NOT NULL DEFAULT 0, item_id INTEGER REFERENCES item(id), description TEXT NOT NULL, our_number TEXT NOT NULL DEFAULT '', their_number TEXT NOT NULL DEFAULT '',
  quantity INTEGER NOT NULL CHECK (quantity > 0), unit TEXT NOT NULL, factor_many INTEGER NOT NULL DEFAULT 1, factor_one INTEGER NOT NULL DEFAULT 1, share_unit TEXT NOT NULL,
  price INTEGER, price_quantity INTEGER NOT NULL DEFAULT 1 CHECK (price_quantity > 0), tax_code_id INTEGER NOT NULL REFERENCES tax_code(id), wanted_on TEXT, net INTEGER NOT NULL DEFAULT 0, charge_code_id INTEGER REFERENCES cost_code(id),
  received INTEGER NOT NULL DEFAULT 0, billed INTEGER NOT NULL DEFAULT 0, closed_short TEXT, bills_ended TEXT
) STRICT;
CREATE INDEX order_line_by_order ON order_line(order_id, place, kind, closed_short, quantity, received);
CREATE TABLE split (
  id INTEGER PRIMARY KEY REFERENCES tab_line(id), line_id INTEGER NOT NULL REFERENCES order_line(id) ON DELETE CASCADE, place INTEGER NOT NULL,
  job_id INTEGER REFERENCES job(id), cost_code_id INTEGER REFERENCES cost_code(id), need_id INTEGER REFERENCES need(id),
  quantity INTEGER NOT NULL CHECK (quantity > 0), value INTEGER NOT NULL,
  received INTEGER NOT NULL DEFAULT 0, billed INTEGER NOT NULL DEFAULT 0, billed_amount INTEGER NOT NULL DEFAULT 0,
  CHECK ((job_id IS NULL) = (cost_code_id IS NULL))
) STRICT;
CREATE INDEX split_by_line ON split(line_id, place);
CREATE INDEX split_by_job ON split(job_id, line_id);
CREATE INDEX split_by_need ON split(need_id) WHERE need_id IS NOT NULL;

CREATE TABLE receipt (
  id INTEGER PRIMARY KEY, order_id INTEGER NOT NULL REFERENCES purchase_order(id), number TEXT NOT NULL UNIQUE, reverses_id INTEGER UNIQUE REFERENCES receipt(id),
  note TEXT NOT NULL DEFAULT '', person_id INTEGER NOT NULL REFERENCES person(id), day TEXT NOT NULL, at TEXT NOT NULL
) STRICT;
CREATE INDEX receipt_by_order ON receipt(order_id);
CREATE TABLE receipt_line (
  receipt_id INTEGER NOT NULL REFERENCES receipt(id), line_id INTEGER NOT NULL REFERENCES order_line(id), accepted INTEGER NOT NULL, PRIMARY KEY (receipt_id, line_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX receipt_line_by_line ON receipt_line(line_id);
CREATE TABLE receipt_split (
  receipt_id INTEGER NOT NULL REFERENCES receipt(id), split_id INTEGER NOT NULL REFERENCES split(id), quantity INTEGER NOT NULL, PRIMARY KEY (receipt_id, split_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX receipt_split_by_split ON receipt_split(split_id);

CREATE TABLE invoice (
  id INTEGER PRIMARY KEY, order_id INTEGER NOT NULL REFERENCES purchase_order(id), supplier_id INTEGER NOT NULL REFERENCES supplier(id), number TEXT NOT NULL, day TEXT NOT NULL, due_on TEXT NOT NULL,
  state TEXT NOT NULL CHECK (state IN ('entered','held','matched','takenOut')), currency TEXT NOT NULL, rate TEXT NOT NULL, net INTEGER NOT NULL, tax INTEGER NOT NULL, gross INTEGER NOT NULL, typed_total INTEGER NOT NULL,
  passed_reason TEXT NOT NULL DEFAULT '', entered_by INTEGER NOT NULL REFERENCES person(id), entered_at TEXT NOT NULL, matched_by INTEGER REFERENCES person(id), matched_on TEXT, version INTEGER NOT NULL DEFAULT 1
) STRICT;
CREATE UNIQUE INDEX invoice_by_number ON invoice(supplier_id, number) WHERE state <> 'takenOut';
CREATE INDEX invoice_by_order ON invoice(order_id);
CREATE INDEX invoice_by_state ON invoice(state, id);
CREATE TABLE invoice_line (
  id INTEGER PRIMARY KEY, invoice_id INTEGER NOT NULL REFERENCES invoice(id), place INTEGER NOT NULL, line_id INTEGER REFERENCES order_line(id), description TEXT NOT NULL DEFAULT '',
  job_id INTEGER REFERENCES job(id), cost_code_id INTEGER REFERENCES cost_code(id), spread INTEGER NOT NULL DEFAULT 0,
  quantity INTEGER NOT NULL, price INTEGER NOT NULL, price_quantity INTEGER NOT NULL, tax_code_id INTEGER NOT NULL REFERENCES tax_code(id), net INTEGER NOT NULL
) STRICT;
CREATE INDEX invoice_line_by_invoice ON invoice_line(invoice_id, place);
CREATE INDEX invoice_line_by_line ON invoice_line(line_id) WHERE line_id IS NOT NULL;
CREATE TABLE invoice_split (
  invoice_line_id INTEGER NOT NULL REFERENCES invoice_line(id), split_id INTEGER NOT NULL REFERENCES split(id), quantity INTEGER NOT NULL, amount INTEGER NOT NULL, PRIMARY KEY (invoice_line_id, split_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX invoice_split_by_split ON invoice_split(split_id);
CREATE TABLE invoice_cost (
  id INTEGER PRIMARY KEY REFERENCES tab_line(id), invoice_id INTEGER NOT NULL REFERENCES invoice(id), invoice_line_id INTEGER REFERENCES invoice_line(id),
  job_id INTEGER REFERENCES job(id), cost_code_id INTEGER REFERENCES cost_code(id), amount INTEGER NOT NULL, CHECK ((job_id IS NULL) = (cost_code_id IS NULL))
) STRICT;
CREATE INDEX invoice_cost_by_invoice ON invoice_cost(invoice_id);

CREATE TABLE document (
  id INTEGER PRIMARY KEY, about TEXT NOT NULL, about_id INTEGER NOT NULL, name TEXT NOT NULL, type TEXT NOT NULL, bytes BLOB NOT NULL, at TEXT NOT NULL
) STRICT;
CREATE INDEX document_by_about ON document(about, about_id);
CREATE TABLE message (
  id INTEGER PRIMARY KEY, about TEXT NOT NULL, about_id INTEGER NOT NULL, document_id INTEGER REFERENCES document(id), recipient TEXT NOT NULL, subject TEXT NOT NULL, body TEXT NOT NULL,
  state TEXT NOT NULL CHECK (state IN ('sending','taken','failed','unknown')), answer TEXT NOT NULL DEFAULT '', raw BLOB, person_id INTEGER NOT NULL REFERENCES person(id), at TEXT NOT NULL
) STRICT;
CREATE INDEX message_by_about ON message(about, about_id, state);

CREATE TABLE posting (
  id INTEGER PRIMARY KEY, tab_line_id INTEGER NOT NULL REFERENCES tab_line(id), job_id INTEGER REFERENCES job(id), cost_code_id INTEGER REFERENCES cost_code(id),
  stage TEXT NOT NULL CHECK (stage IN ('planned','drafted','onOrder','received','actual')), amount INTEGER NOT NULL CHECK (amount <> 0),
  event TEXT NOT NULL, document TEXT NOT NULL, document_id INTEGER NOT NULL, person_id INTEGER NOT NULL REFERENCES person(id), day TEXT NOT NULL, at TEXT NOT NULL,
  CHECK ((job_id IS NULL) = (cost_code_id IS NULL))
) STRICT;
CREATE INDEX posting_by_job ON posting(job_id, cost_code_id, stage, day, amount);
CREATE INDEX posting_by_line ON posting(tab_line_id, job_id, cost_code_id, stage, amount);
CREATE TRIGGER posting_is_never_changed BEFORE UPDATE ON posting BEGIN SELECT RAISE(ABORT, 'a posting is never changed'); END;
CREATE TRIGGER posting_is_never_deleted BEFORE DELETE ON posting BEGIN SELECT RAISE(ABORT, 'a posting is never deleted'); END;
CREATE TABLE tab_sum (job_id INTEGER NOT NULL, cost_code_id INTEGER NOT NULL, stage TEXT NOT NULL, amount INTEGER NOT NULL, PRIMARY KEY (job_id, cost_code_id, stage)) STRICT, WITHOUT ROWID;
CREATE TRIGGER posting_is_summed AFTER INSERT ON posting WHEN NEW.job_id IS NOT NULL BEGIN
  INSERT INTO tab_sum VALUES (NEW.job_id, NEW.cost_code_id, NEW.stage, NEW.amount)
  ON CONFLICT DO UPDATE SET amount = amount + excluded.amount;
  INSERT INTO code_sum VALUES (NEW.job_id, NEW.cost_code_id, 0, NEW.amount)
  ON CONFLICT DO UPDATE SET forecast = forecast + excluded.forecast;
END;
CREATE TABLE code_sum (job_id INTEGER NOT NULL, cost_code_id INTEGER NOT NULL, budget INTEGER NOT NULL, forecast INTEGER NOT NULL, PRIMARY KEY (job_id, cost_code_id)) STRICT, WITHOUT ROWID;
CREATE INDEX code_sum_over ON code_sum(job_id, cost_code_id, budget, forecast) WHERE forecast > budget;
CREATE TRIGGER budget_is_summed AFTER INSERT ON budget_entry BEGIN
  INSERT INTO code_sum VALUES (NEW.job_id, NEW.cost_code_id, NEW.amount, 0)
  ON CONFLICT DO UPDATE SET budget = budget + excluded.budget;
END;
CREATE TRIGGER budget_is_never_changed BEFORE UPDATE ON budget_entry BEGIN SELECT RAISE(ABORT, 'a budget entry is never changed'); END;
CREATE TRIGGER budget_is_never_deleted BEFORE DELETE ON budget_entry BEGIN SELECT RAISE(ABORT, 'a budget entry is never deleted'); END;

CREATE TABLE audit (id INTEGER PRIMARY KEY, at TEXT NOT NULL, day TEXT NOT NULL, person_id INTEGER NOT NULL REFERENCES person(id), action TEXT NOT NULL, words TEXT NOT NULL, changes TEXT) STRICT;
CREATE TABLE audit_subject (audit_id INTEGER NOT NULL REFERENCES audit(id), kind TEXT NOT NULL, subject_id INTEGER NOT NULL, PRIMARY KEY (kind, subject_id, audit_id)) STRICT, WITHOUT ROWID;
CREATE TRIGGER audit_is_never_changed BEFORE UPDATE ON audit BEGIN SELECT RAISE(ABORT, 'an audit record is never changed'); END;
CREATE TRIGGER audit_is_never_deleted BEFORE DELETE ON audit BEGIN SELECT RAISE(ABORT, 'an audit record is never deleted'); END;
CREATE TABLE done_once (key TEXT NOT NULL, person_id INTEGER NOT NULL REFERENCES person(id), action TEXT NOT NULL, outcome TEXT NOT NULL, at TEXT NOT NULL, PRIMARY KEY (person_id, action, key)) STRICT, WITHOUT ROWID;
`;
