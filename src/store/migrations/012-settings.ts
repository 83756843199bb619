/** Cost codes and taxes that are no longer used, units that are not offered, and how jobs are numbered. */
export const name = '012-settings';

export const up = `
ALTER TABLE cost_code ADD COLUMN gone INTEGER NOT NULL DEFAULT 0 CHECK (gone IN (0, 1));
ALTER TABLE cost_code ADD COLUMN version INTEGER NOT NULL DEFAULT 1;
ALTER TABLE tax_code ADD COLUMN gone INTEGER NOT NULL DEFAULT 0 CHECK (gone IN (0, 1));
ALTER TABLE tax_code ADD COLUMN version INTEGER NOT NULL DEFAULT 1;
ALTER TABLE company ADD COLUMN job_pattern TEXT NOT NULL DEFAULT '{0}';
CREATE TABLE unit_unused (code TEXT PRIMARY KEY) STRICT, WITHOUT ROWID;
`;
