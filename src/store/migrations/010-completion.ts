/** What people say of how a job's cost codes end, and which of them may end over. */
export const name = '010-completion';

export const up = `
-- The latest up to a day holds on it; done in hundredths of a percent. One that says nothing ends what was said before.
CREATE TABLE completion (
  id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job(id), cost_code_id INTEGER NOT NULL REFERENCES cost_code(id),
  amount INTEGER CHECK (amount >= 0), done INTEGER CHECK (done BETWEEN 0 AND 10000), reason TEXT NOT NULL, person_id INTEGER NOT NULL REFERENCES person(id), day TEXT NOT NULL, at TEXT NOT NULL
) STRICT;
CREATE INDEX completion_by_job ON completion(job_id, cost_code_id, day, id);
CREATE TRIGGER completion_is_never_changed BEFORE UPDATE ON completion BEGIN SELECT RAISE(ABORT, 'what was said of completion is never changed'); END;
CREATE TRIGGER completion_is_never_deleted BEFORE DELETE ON completion BEGIN SELECT RAISE(ABORT, 'what was said of completion is never deleted'); END;

-- That a cost code may pass its budget by so much, for a reason; more than that is a new decision.
CREATE TABLE let_be (
  id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job(id), cost_code_id INTEGER NOT NULL REFERENCES cost_code(id), over INTEGER NOT NULL CHECK (over > 0), reason TEXT NOT NULL,
  person_id INTEGER NOT NULL REFERENCES person(id), day TEXT NOT NULL, at TEXT NOT NULL
) STRICT;
CREATE INDEX let_be_by_job ON let_be(job_id, cost_code_id, id);
`;
