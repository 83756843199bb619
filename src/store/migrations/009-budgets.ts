/** Budget changes under numbers, and what of a job's money is held back. */
export const name = '009-budgets';

export const up = `
-- A change of a job's budget; it counts once it is agreed. What the customer pays more or less for it stands beside.
CREATE TABLE budget_change (
  id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job(id), number INTEGER NOT NULL, state TEXT NOT NULL CHECK (state IN ('pending','agreed','dropped')),
  day TEXT NOT NULL, reason TEXT NOT NULL, customer_reference TEXT NOT NULL DEFAULT '', agreed_by TEXT NOT NULL DEFAULT '', quote_change INTEGER,
  person_id INTEGER NOT NULL REFERENCES person(id), at TEXT NOT NULL, decided_by INTEGER REFERENCES person(id), decided_on TEXT, version INTEGER NOT NULL DEFAULT 1,
  UNIQUE (job_id, number)
) STRICT;
CREATE INDEX budget_change_pending ON budget_change(job_id) WHERE state = 'pending';
-- By how much it moves a cost code, or, without one, what is held back of the job's money.
CREATE TABLE budget_change_line (
  change_id INTEGER NOT NULL REFERENCES budget_change(id), place INTEGER NOT NULL, cost_code_id INTEGER REFERENCES cost_code(id), amount INTEGER NOT NULL CHECK (amount <> 0),
  PRIMARY KEY (change_id, place)
) STRICT, WITHOUT ROWID;
ALTER TABLE budget_entry ADD COLUMN change_id INTEGER REFERENCES budget_change(id);
CREATE INDEX budget_entry_by_change ON budget_entry(change_id) WHERE change_id IS NOT NULL;

-- What is held back of a job's money: no budget of any cost code until it is released.
CREATE TABLE held_entry (
  id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job(id), amount INTEGER NOT NULL, change_id INTEGER NOT NULL REFERENCES budget_change(id),
  person_id INTEGER NOT NULL REFERENCES person(id), day TEXT NOT NULL, at TEXT NOT NULL
) STRICT;
CREATE INDEX held_entry_by_job ON held_entry(job_id, day, amount);
CREATE TRIGGER held_is_never_changed BEFORE UPDATE ON held_entry BEGIN SELECT RAISE(ABORT, 'a held entry is never changed'); END;
CREATE TRIGGER held_is_never_deleted BEFORE DELETE ON held_entry BEGIN SELECT RAISE(ABORT, 'a held entry is never deleted'); END;

CREATE TABLE budget_note (
  job_id INTEGER NOT NULL REFERENCES job(id), cost_code_id INTEGER NOT NULL REFERENCES cost_code(id), words TEXT NOT NULL, PRIMARY KEY (job_id, cost_code_id)
) STRICT, WITHOUT ROWID;
`;
