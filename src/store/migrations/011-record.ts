/** The record is sealed, so that a row which is changed or missing is found. */
export const name = '011-record';

export const up = `
-- One chain over the rows of several tables, in the order in which they were written; each hash is of the one before it and of its row.
CREATE TABLE seal (id INTEGER PRIMARY KEY, source TEXT NOT NULL, row_id INTEGER NOT NULL, hash TEXT NOT NULL) STRICT;
CREATE UNIQUE INDEX seal_by_row ON seal(source, row_id);
CREATE TRIGGER seal_is_never_changed BEFORE UPDATE ON seal BEGIN SELECT RAISE(ABORT, 'a seal is never changed'); END;
CREATE TRIGGER seal_is_never_deleted BEFORE DELETE ON seal BEGIN SELECT RAISE(ABORT, 'a seal is never deleted'); END;
CREATE TRIGGER audit_subject_is_never_changed BEFORE UPDATE ON audit_subject BEGIN SELECT RAISE(ABORT, 'what an audit record is about is never changed'); END;
CREATE TRIGGER audit_subject_is_never_deleted BEFORE DELETE ON audit_subject BEGIN SELECT RAISE(ABORT, 'what an audit record is about is never deleted'); END;
CREATE INDEX audit_subject_by_audit ON audit_subject(audit_id, kind, subject_id);
CREATE INDEX audit_by_day ON audit(day, id);
CREATE INDEX audit_by_person ON audit(person_id, id);
`;
