/**
 * How each person looks at a list: which columns in which order, and views kept by name. What lists are sorted by stands
 * on an index where a large company's list would be slow without.
 */
export const name = '004-lists';

export const up = `
CREATE TABLE list_columns (
  person_id INTEGER NOT NULL REFERENCES person(id), list TEXT NOT NULL,
  -- The keys of the columns in order, and those that are left out, as JSON.
  shown TEXT NOT NULL, hidden TEXT NOT NULL,
  PRIMARY KEY (person_id, list)
) WITHOUT ROWID;
CREATE TABLE list_view (
  id INTEGER PRIMARY KEY, person_id INTEGER NOT NULL REFERENCES person(id), list TEXT NOT NULL, name TEXT NOT NULL,
  -- Filters and sorting, as they stand in the address.
  query TEXT NOT NULL,
  UNIQUE (person_id, list, name)
);
CREATE INDEX order_by_wanted ON purchase_order(coalesce(wanted_on, '9999'), id);
CREATE INDEX item_by_name ON item(name, id);
`;
