/** Where parts of orders, and the lines of buy lists that they cover, stood at the end of each day, so that something can be dated back. */
export const name = '017-days';

export const up = `
CREATE TABLE split_day (
  id INTEGER NOT NULL REFERENCES tab_line(id),
  day TEXT NOT NULL,
  job_id INTEGER, cost_code_id INTEGER, need_id INTEGER, stored INTEGER NOT NULL, commitment TEXT NOT NULL,
  ordered INTEGER NOT NULL, value INTEGER NOT NULL, received INTEGER NOT NULL, given_up INTEGER NOT NULL,
  invoiced INTEGER NOT NULL, claimed INTEGER NOT NULL, invoiced_amount INTEGER NOT NULL,
  PRIMARY KEY (id, day)
) STRICT, WITHOUT ROWID;
CREATE INDEX split_day_need ON split_day(need_id) WHERE need_id IS NOT NULL;
CREATE TABLE need_day (
  id INTEGER NOT NULL REFERENCES tab_line(id),
  day TEXT NOT NULL,
  job_id INTEGER NOT NULL, cost_code_id INTEGER NOT NULL, quantity INTEGER NOT NULL, drafted INTEGER NOT NULL, price INTEGER,
  price_quantity INTEGER NOT NULL, tax_rate INTEGER, recoverable INTEGER,
  in_stores INTEGER NOT NULL, coming INTEGER NOT NULL, issued INTEGER NOT NULL, own_issued INTEGER NOT NULL,
  transferred INTEGER NOT NULL, cost INTEGER NOT NULL,
  PRIMARY KEY (id, day)
) STRICT, WITHOUT ROWID;
`;
