import type { Db } from './db';
import { insertMany, rowOf } from './rows';
import type { TabLineKind } from './tables';

/** Opens lines of the tab, one for each of the words. @returns their ids in order */
export async function openTabLines(trx: Db, kind: TabLineKind, words: readonly string[]): Promise<number[]> {
  // The highest id that ever was: one that is gone is never given again.
  const last = await rowOf<{ seq: number }>(trx('sqlite_sequence').where({ name: 'tab_line' }).first('seq'));
  const from = (last?.seq ?? 0) + 1;
  const lines = words.map((w, k) => ({ id: from + k, kind, words: w }));
  await insertMany(trx, 'tabLine', lines);
  return lines.map((l) => l.id);
}
