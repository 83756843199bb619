/**
 * How the company writes days and numbers; what is found as one types; what a person used last; what words in files mean.
 *
 * `find` holds the words of every thing, by a row id that says what it is: its kind × 10¹² + its id. For each kind a
 * view says which words those are, and triggers keep `find` in step with it, whoever writes.
 */
export const name = '003-entry';

type Words = {
  readonly kind: number;
  readonly table: string;
  /** Alias `t` is the table. */
  readonly words: string;
  readonly joins?: string;
  /** Columns whose change changes the words; all when left out. */
  readonly of?: string;
  /** Other tables whose change changes the words, and the ids they concern. */
  readonly also?: readonly {
    readonly table: string;
    readonly of?: string;
    readonly ids: (row: 'NEW' | 'OLD') => string;
  }[];
};

/** A number with its signs, and without them: TU-316-38 is found as TU31638 too. */
export const numbered = (column: string) => `${column} || ' ' || replace(replace(${column}, '-', ''), '.', '')`;
/** What follows the last dash of a number, without leading zeros: K26-0023 is found as 23 too. */
const counted = (column: string) => `ltrim(replace(${column}, rtrim(${column}, '0123456789'), ''), '0')`;

const FOUND: readonly Words[] = [
  {
    kind: 1,
    table: 'job',
    words: `${numbered('t.number')} || ' ' || t.name || ' ' || t.short_name || ' ' || t.site || ' ' || c.name`,
    joins: 'JOIN customer c ON c.id = t.customer_id',
    of: 'number, name, short_name, site, customer_id',
    also: [{ table: 'customer', of: 'name', ids: (r) => `SELECT id FROM job WHERE customer_id = ${r}.id` }],
  },
  {
    kind: 2,
    table: 'quote',
    words: `${numbered('t.number')} || ' ' || j.name`,
    joins: 'JOIN job j ON j.id = t.job_id',
    of: 'number',
  },
  {
    kind: 3,
    table: 'need',
    words: `t.description || ' ' || j.number || ' ' || coalesce(${numbered('i.number')}, '')`,
    joins: 'JOIN job j ON j.id = t.job_id LEFT JOIN item i ON i.id = t.item_id',
    of: 'description, item_id',
  },
  {
    kind: 4,
    table: 'item',
    words: `${numbered('t.number')} || ' ' || t.name || ' ' || coalesce(t.gtin, '') || ' ' || coalesce((SELECT group_concat(${numbered('p.their_number')}, ' ') FROM supplier_part p WHERE p.item_id = t.id), '')`,
    of: 'number, name, gtin',
    also: [{ table: 'supplier_part', of: 'their_number', ids: (r) => `SELECT ${r}.item_id` }],
  },
  {
    kind: 5,
    table: 'supplier',
    words: `t.name || ' ' || t.contact || ' ' || coalesce(t.email, '')`,
    of: 'name, contact, email',
  },
  {
    kind: 6,
    table: 'purchase_order',
    words: `${numbered('t.number')} || ' ' || ${counted('t.number')} || ' ' || s.name`,
    joins: 'JOIN supplier s ON s.id = t.supplier_id',
    of: 'number, supplier_id',
    also: [{ table: 'supplier', of: 'name', ids: (r) => `SELECT id FROM purchase_order WHERE supplier_id = ${r}.id` }],
  },
  {
    kind: 7,
    table: 'receipt',
    words: `${numbered('t.number')} || ' ' || ${counted('t.number')} || ' ' || t.note || ' ' || o.number`,
    joins: 'JOIN purchase_order o ON o.id = t.order_id',
    of: 'number, note',
  },
  {
    kind: 8,
    table: 'invoice',
    words: `${numbered('t.number')} || ' ' || s.name || ' ' || o.number`,
    joins: 'JOIN supplier s ON s.id = t.supplier_id JOIN purchase_order o ON o.id = t.order_id',
    of: 'number',
    also: [{ table: 'supplier', of: 'name', ids: (r) => `SELECT id FROM invoice WHERE supplier_id = ${r}.id` }],
  },
  { kind: 9, table: 'person', words: `t.name || ' ' || t.email`, of: 'name, email' },
  { kind: 10, table: 'customer', words: 't.name', of: 'name' },
  { kind: 11, table: 'cost_code', words: `t.code || ' ' || ltrim(t.code, '0') || ' ' || t.name`, of: 'code, name' },
];

/** A view of the words of a table’s rows, and what keeps `find` in step with it. */
export function keepInStep({ kind, table, words, joins = '', of, also = [] }: Words): string {
  const from = `${kind}000000000000`;
  const view = `find_${table}`;
  const put = (ids: string) =>
    `INSERT INTO find (rowid, words) SELECT ${from} + id, words FROM ${view} WHERE id IN (${ids});`;
  const take = (ids: string) =>
    `DELETE FROM find WHERE rowid IN (SELECT ${from} + id FROM ${table} WHERE id IN (${ids}));`;
  const changed = (columns: string | undefined) => (columns === undefined ? 'UPDATE' : `UPDATE OF ${columns}`);
  const others = also.map(
    ({ table: other, of: columns, ids }) => `
CREATE TRIGGER ${view}_by_${other}_changed AFTER ${changed(columns)} ON ${other} BEGIN ${take(ids('NEW'))} ${put(ids('NEW'))} END;
${
  other === 'supplier_part'
    ? `CREATE TRIGGER ${view}_by_${other}_made AFTER INSERT ON ${other} BEGIN ${take(ids('NEW'))} ${put(ids('NEW'))} END;
CREATE TRIGGER ${view}_by_${other}_gone AFTER DELETE ON ${other} BEGIN ${take(ids('OLD'))} ${put(ids('OLD'))} END;`
    : ''
}`,
  );
  return `
CREATE VIEW ${view} AS SELECT t.id AS id, ${words} AS words FROM ${table} t ${joins};
INSERT INTO find (rowid, words) SELECT ${from} + id, words FROM ${view};
CREATE TRIGGER ${view}_made AFTER INSERT ON ${table} BEGIN ${put('NEW.id')} END;
CREATE TRIGGER ${view}_changed AFTER ${changed(of)} ON ${table} BEGIN ${take('NEW.id')} ${put('NEW.id')} END;
CREATE TRIGGER ${view}_gone AFTER DELETE ON ${table} BEGIN DELETE FROM find WHERE rowid = ${from} + OLD.id; END;
${others.join('')}`;
}

export const up = `
ALTER TABLE company ADD COLUMN language TEXT NOT NULL DEFAULT 'en-GB';
ALTER TABLE company ADD COLUMN decimal_mark TEXT NOT NULL DEFAULT '.';
ALTER TABLE company ADD COLUMN first_day INTEGER NOT NULL DEFAULT 1;
ALTER TABLE company ADD COLUMN paper TEXT NOT NULL DEFAULT 'A4';
ALTER TABLE item ADD COLUMN gtin TEXT;

CREATE TABLE last_used (
  person_id INTEGER NOT NULL REFERENCES person(id), kind TEXT NOT NULL, thing_id INTEGER NOT NULL, at TEXT NOT NULL,
  PRIMARY KEY (person_id, kind, thing_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX last_used_by_at ON last_used(person_id, kind, at);

CREATE INDEX order_line_by_item ON order_line(item_id, order_id) WHERE item_id IS NOT NULL;
CREATE INDEX need_open_by_item ON need(item_id) WHERE open > 0;

CREATE TABLE file_memory (
  kind TEXT NOT NULL, what TEXT NOT NULL, word TEXT NOT NULL, meaning TEXT NOT NULL, PRIMARY KEY (kind, what, word)
) STRICT, WITHOUT ROWID;

CREATE VIRTUAL TABLE find USING fts5(words, content='', contentless_delete=1, tokenize="unicode61 remove_diacritics 2", prefix='1 2 3');
${FOUND.map(keepInStep).join('')}
`;
