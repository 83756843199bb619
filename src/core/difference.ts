/** What changed of a record: for each field, by its path, what stood there and what stands there now. */
export type Changes = Readonly<Record<string, { readonly from?: unknown; readonly to?: unknown }>>;

type Fields = Readonly<Record<string, unknown>>;

const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value) && !ArrayBuffer.isView(value);

/** Rows of a list are known by their id where they have one, so that one taken off moves no other. */
const keysOf = (list: readonly unknown[]): Fields =>
  Object.fromEntries(
    list.map((row, k) => [isFields(row) && row.id !== undefined ? `#${String(row.id)}` : String(k), row]),
  );

const asFields = (value: unknown): Fields | undefined =>
  Array.isArray(value) ? keysOf(value) : isFields(value) ? value : undefined;

/**
 * Compares a record before and after a change and keeps only what differs.
 *
 * @returns an entry for each field that changed; `from` is left out for what is new, `to` for what is gone
 * @example difference({ price: 5, unit: 'm' }, { price: 6, unit: 'm' }) // { price: { from: 5, to: 6 } }
 */
export function difference(before: unknown, after: unknown, path = ''): Changes {
  if (Object.is(before, after)) return {};
  const [was, is] = [asFields(before), asFields(after)];
  if (was === undefined || is === undefined) {
    const change = {
      ...(before === undefined ? {} : { from: before }),
      ...(after === undefined ? {} : { to: after }),
    };
    return Object.keys(change).length === 0 ? {} : { [path]: change };
  }
  const fields = new Set([...Object.keys(was), ...Object.keys(is)]);
  return Object.assign({}, ...[...fields].map((f) => difference(was[f], is[f], path === '' ? f : `${path}.${f}`)));
}
