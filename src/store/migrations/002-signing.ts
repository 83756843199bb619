/** Sign-ins as rows, so that they can be ended; tries counted by place as well; links to choose a new password. */
export const name = '002-signing';

export const up = `
CREATE TABLE session (
  id INTEGER PRIMARY KEY, token_hash TEXT NOT NULL UNIQUE, person_id INTEGER NOT NULL REFERENCES person(id),
  begun_at TEXT NOT NULL, seen_at TEXT NOT NULL, ended_at TEXT, browser TEXT NOT NULL, place TEXT NOT NULL
) STRICT;
CREATE INDEX session_by_person ON session(person_id, ended_at);

CREATE TABLE password_reset (
  id INTEGER PRIMARY KEY, token_hash TEXT NOT NULL UNIQUE, person_id INTEGER NOT NULL REFERENCES person(id),
  started_by INTEGER NOT NULL REFERENCES person(id), at TEXT NOT NULL, used_at TEXT
) STRICT;
CREATE INDEX password_reset_by_person ON password_reset(person_id);

ALTER TABLE sign_in_attempt ADD COLUMN place TEXT NOT NULL DEFAULT '';
CREATE INDEX sign_in_attempt_by_place ON sign_in_attempt(place, at);
`;
