import Papa from 'papaparse';
import type { Choice, ChoiceKind } from '@/queries/frame/choices';
import type { EntryColumn } from './column';

export const MOST_PASTED = 1000;

/** Rows of cells as a spreadsheet puts them on the clipboard: parted by tabs, cells with line breaks in quotes. */
export function readPasted(text: string): string[][] {
  const { data } = Papa.parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter: '\t', skipEmptyLines: 'greedy' });
  return data.map((row) => row.map((cell) => cell.replace(/\s+/g, ' ').trim()));
}

export type LaidOut = {
  /** The key of the column that each pasted one goes to; undefined for one that goes nowhere. */
  readonly keys: readonly (string | undefined)[];
  readonly rows: readonly (readonly string[])[];
};

/**
 * Finds where pasted cells belong: by their headings when the first row has two or more that name columns of the sheet,
 * else in order from the cell they are pasted into.
 */
export function layOut<Row>(
  pasted: readonly (readonly string[])[],
  columns: readonly EntryColumn<Row>[],
  from: string,
): LaidOut {
  const filled = columns.filter((c) => c.entry !== undefined);
  const [first = [], ...rest] = pasted;
  const taken = new Set<string>();
  const headed = first.map((heading) => {
    const column = filled.find((c) => !taken.has(c.key) && c.entry?.heads.test(heading));
    if (column !== undefined) taken.add(column.key);
    return column?.key;
  });
  if (taken.size >= 2) return { keys: headed, rows: rest };
  const start = Math.max(
    filled.findIndex((c) => c.key === from),
    0,
  );
  const width = Math.max(0, ...pasted.map((r) => r.length));
  return { keys: Array.from({ length: width }, (_, k) => filled[start + k]?.key), rows: pasted };
}

/** What pasted words stand for, by column and word. */
export type Meanings = ReadonlyMap<string, ReadonlyMap<string, Choice>>;

/** The words of each column of things, which are looked up before they are put down. */
export function wordsOf<Row>(laid: LaidOut, columns: readonly EntryColumn<Row>[]): Map<string, string[]> {
  const words = new Map<string, string[]>();
  laid.keys.forEach((key, at) => {
    const entry = columns.find((c) => c.key === key)?.entry;
    if (key === undefined || entry?.kind !== 'pick') return;
    words.set(key, [...new Set(laid.rows.map((r) => r[at] ?? '').filter((w) => w !== ''))]);
  });
  return words;
}

const closest = (things: readonly Choice[], word: string): Choice | undefined =>
  things.find((t) => [t.number, t.name].some((w) => w !== '' && w.toLowerCase() === word.toLowerCase()));

/** What is pasted is read whatever is offered. */
const EVERY_UNIT = { unitsUnused: [] };

/** Looks up what pasted words stand for; what is not known stays as it was written. */
export async function meaningsOf<Row>(
  words: ReadonlyMap<string, readonly string[]>,
  columns: readonly EntryColumn<Row>[],
  lookUp: (kind: ChoiceKind, words: readonly string[]) => Promise<readonly (Choice | null)[]>,
): Promise<Meanings> {
  const found = new Map<string, Map<string, Choice>>();
  for (const [key, list] of words) {
    const entry = columns.find((c) => c.key === key)?.entry;
    if (entry?.kind !== 'pick') continue;
    const { of, also = [] } = entry;
    const things =
      typeof of === 'function' ? list.map((w) => closest(of(w, EVERY_UNIT), w) ?? null) : await lookUp(of, list);
    const known = list.map((w, k) => [w, closest(also, w) ?? things[k]] as const);
    found.set(key, new Map(known.flatMap(([w, thing]) => (thing == null ? [] : [[w, thing] as const]))));
  }
  return found;
}

/** A row with pasted cells put into it. Empty cells change nothing. */
export function putRow<Row>(
  row: Row,
  cells: readonly string[],
  { keys }: LaidOut,
  columns: readonly EntryColumn<Row>[],
  meanings: Meanings,
  readDay: (text: string) => string,
): Row {
  // Things come first: a part brings its name, unit and price along, and what was pasted beside it stands over those.
  const places = keys
    .map((key, at) => ({ column: columns.find((c) => c.key === key), text: cells[at] ?? '' }))
    .filter(({ column, text }) => column?.entry !== undefined && text !== '');
  const order = [
    ...places.filter(({ column }) => column?.entry?.kind === 'pick'),
    ...places.filter(({ column }) => column?.entry?.kind !== 'pick'),
  ];
  return order.reduce((now, { column, text }) => {
    const entry = column?.entry;
    if (entry === undefined || entry.text(now) === undefined) return now;
    if (entry.kind === 'day') return entry.put(now, readDay(text));
    const thing = entry.kind === 'pick' ? meanings.get(column?.key ?? '')?.get(text) : undefined;
    return entry.kind === 'pick' && thing !== undefined ? entry.take(now, thing) : entry.put(now, text);
  }, row);
}
