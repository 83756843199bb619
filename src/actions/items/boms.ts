import { z } from 'zod';
import type { Bom } from '@/core/boms/bom';
import { loopFrom } from '@/core/boms/levels';
import type { Day } from '@/core/calendar/workdays';
import { isGoods } from '@/core/items/kinds';
import { exactFactor, unitOf } from '@/core/quantity/units';
import { bomFields, bomLineFields, MOST_BOM_LINES } from '@/core/records/bom';
import { requiredDay } from '@/core/records/fields';
import { counted } from '@/core/words';
import { bomsOn, loadBomsBelow } from '@/store/boms';
import { loadItems } from '@/store/gathering';
import { insertMany, insertOne } from '@/store/rows';
import type { Item } from '@/store/tables';
import { defineAction, found, once, refuse, sameVersion, type Work } from '../action';

type Line = z.output<typeof bomLineFields> & { readonly id?: number | undefined };

/** A component is known, is measured in a unit that fits it, and what is made is counted as its own BOM counts it. */
function checkLine(line: Line, item: Item | undefined, at: string): void {
  if (line.gotBy === 'made' && line.itemId === null)
    refuse('bom.made', `${line.description} is a made item: choose an item that has a BOM.`, `${at}description`);
  if (line.itemId === null) return;
  const known = found(item, 'An item of this BOM');
  const fits = line.gotBy === 'made' ? known.unit === line.unit : exactFactor(known.unit, line.unit) !== undefined;
  if (!fits)
    refuse(
      'bom.unit',
      `${known.number} is held in ${unitOf(known.unit).name}s; ${unitOf(line.unit).name}s can’t be converted. Enter it in ${unitOf(known.unit).name}s.`,
      `${at}unit`,
    );
}

const LAST_DAY = '9999-12-31' as Day;

type TypedBom = { readonly itemId: number; readonly makingDays: number; readonly lines: readonly Line[] };

/**
 * Refuses BOMs whose lines cannot be, and BOMs that would contain themselves, now or when the versions that are there
 * already begin; the way of such a loop is shown.
 */
async function checkBoms(trx: Work['trx'], typed: readonly TypedBom[], from: Day): Promise<void> {
  const items = await loadItems(
    trx,
    typed.flatMap((b) => b.lines.flatMap((l) => l.itemId ?? [])),
  );
  for (const { lines } of typed)
    for (const [k, line] of lines.entries()) checkLine(line, items.get(line.itemId ?? 0), `lines.${k}.`);
  const boms = typed.map(asBom);
  for (const on of [from, LAST_DAY]) {
    const all = await loadBomsBelow(trx, boms, on);
    for (const bom of boms) {
      const loop = loopFrom(bom, all);
      if (loop === undefined) continue;
      const named = await loadItems(trx, loop);
      const way = loop.map((id) => named.get(id)?.number ?? '').join(' → ');
      refuse('bom.loop', `This BOM would contain itself: ${way}. Remove one of those lines.`, 'lines');
    }
  }
}

/** Saves a version of the BOM of an item that is made. */
export const saveBom = defineAction({
  name: 'saveBom',
  right: 'keep BOMs',
  input: z.object({
    once,
    itemId: z.number().int(),
    /** null for a new version. */
    bomId: z.number().int().nullable(),
    version: z.number().int(),
    ...bomFields.shape,
  }),
  run: async ({ trx, actor, audit }, { once: _, itemId, bomId, version, lines, ...head }) => {
    const item = found(await trx('item').where({ id: itemId }).first(), 'This item');
    if (!isGoods(item.kind)) refuse('bom.kind', `${item.number} isn’t a material or part, so it can’t have a BOM.`);
    const before =
      bomId === null
        ? undefined
        : sameVersion(found(await trx('bom').where({ id: bomId, itemId }).first(), 'This BOM'), version, 'This BOM');
    const twin = await trx('bom').where({ itemId, fromDay: head.fromDay }).first('id');
    if (twin !== undefined && twin.id !== bomId)
      refuse(
        'bom.day',
        'Another version of this BOM is valid from that date. Edit that one, or choose another date.',
        'fromDay',
      );
    await checkBoms(trx, [{ itemId, makingDays: head.makingDays, lines }], head.fromDay);
    const id = bomId ?? (await insertOne(trx, 'bom', { ...head, itemId, madeBy: actor.id }));
    if (before !== undefined)
      await trx('bom')
        .where({ id })
        .update({ ...head, version: version + 1 });
    await saveLines(trx, id, lines);
    await audit({
      words: `${bomId === null ? 'Created' : 'Changed'} BOM of ${item.number} from ${head.fromDay}, ${counted(lines.length, 'line')}`,
      subjects: [['item', itemId]],
      before: before && { ...before, lines: undefined },
      after: { ...head, lines },
    });
    return { id, version: (before?.version ?? 0) + 1 };
  },
});

const asBom = ({ itemId, makingDays, lines }: TypedBom): Bom => ({
  id: 0,
  itemId,
  makingDays,
  lines: lines.map(({ id = 0, offsetDays: days, offsetFrom: from, ...line }) => ({
    id,
    offset: { days, from },
    ...line,
  })),
});

async function saveLines(trx: Work['trx'], bomId: number, lines: readonly Line[]): Promise<void> {
  const known = new Set((await trx('bomLine').where({ bomId }).select('id')).map((l) => l.id));
  const kept = lines.flatMap((l) => l.id ?? []);
  if (kept.some((id) => !known.has(id)))
    refuse('line.missing', 'The BOM has changed: a line was removed. Refresh the page and try again.');
  await trx('bomLine').where({ bomId }).whereNotIn('id', kept).delete();
  const rows = lines.map((line, k) => ({ ...line, bomId, place: k + 1 }));
  for (const { id, ...row } of rows) if (id !== undefined) await trx('bomLine').where({ id }).update(row);
  await insertMany(
    trx,
    'bomLine',
    rows.flatMap(({ id, ...row }) => (id === undefined ? [row] : [])),
  );
}

/** Changes one line of a BOM, puts one more at its end, or takes one off: from the tree of what it is a part of. */
export const changeBranch = defineAction({
  name: 'changeBranch',
  right: 'keep BOMs',
  input: z.object({
    once,
    bomId: z.number().int(),
    version: z.number().int(),
    /** null for one more. */
    lineId: z.number().int().nullable(),
    /** null takes it off. */
    line: bomLineFields.nullable(),
  }),
  run: async ({ trx, audit }, { bomId, version, lineId, line }) => {
    const bom = sameVersion(found(await trx('bom').where({ id: bomId }).first(), 'This BOM'), version, 'This BOM');
    const before = await trx('bomLine').where({ bomId }).orderBy('place');
    if (lineId !== null)
      found(
        before.find((l) => l.id === lineId),
        'This line',
      );
    const stays = before.map(({ bomId: _, place: __, ...own }): Line => own);
    const changed = line === null ? [] : [lineId === null ? line : { ...line, id: lineId }];
    const lines = lineId === null ? [...stays, ...changed] : stays.flatMap((l) => (l.id === lineId ? changed : [l]));
    if (lines.length === 0) refuse('bom.empty', 'Enter at least one line.');
    if (lines.length > MOST_BOM_LINES)
      refuse('bom.long', `No more than ${MOST_BOM_LINES} lines in a BOM. Move some into a BOM of their own.`);
    await checkBoms(trx, [{ ...bom, lines }], bom.fromDay);
    await saveLines(trx, bomId, lines);
    await trx('bom')
      .where({ id: bomId })
      .update({ version: version + 1 });
    const item = found(await trx('item').where({ id: bom.itemId }).first('number'), 'This item');
    const was = before.find((l) => l.id === lineId);
    const what = (line ?? was)?.description ?? '';
    await audit({
      words: `${line === null ? 'Removed' : was === undefined ? 'Added' : 'Changed'} ${what} ${line === null ? 'from' : was === undefined ? 'to' : 'in'} the BOM of ${item.number}`,
      subjects: [['item', bom.itemId]],
      before: was,
      after: line,
    });
    return { version: version + 1 };
  },
});

/** The most lines that a file may bring in at once. */
const MOST_BROUGHT = 50_000;

/** Brings BOMs in that a file told, as versions from a day on: all of them or none. One that begins that day is replaced. */
export const importBoms = defineAction({
  name: 'importBoms',
  internal: true,
  right: 'keep BOMs',
  input: z.object({
    once,
    fromDay: requiredDay('Enter the date they are valid from.'),
    boms: z
      .array(z.object({ itemId: z.number().int(), lines: z.array(bomLineFields).min(1).max(MOST_BOM_LINES) }))
      .min(1, 'The file has no BOM. Choose another file.')
      .refine(
        (all) => all.reduce((sum, b) => sum + b.lines.length, 0) <= MOST_BROUGHT,
        'The file has too many lines. Split it and import the parts one after the other.',
      ),
  }),
  run: async ({ trx, actor, audit }, { fromDay, boms }) => {
    const before = await bomsOn(
      trx,
      boms.map((b) => b.itemId),
      fromDay,
    );
    const makingDays = (itemId: number) => before.find((b) => b.itemId === itemId)?.makingDays ?? 0;
    await checkBoms(
      trx,
      boms.map((b) => ({ ...b, makingDays: makingDays(b.itemId) })),
      fromDay,
    );
    for (const { itemId, lines } of boms) {
      const known = before.find((b) => b.itemId === itemId && b.fromDay === fromDay);
      const head = { itemId, fromDay, note: 'from a file', makingDays: makingDays(itemId), madeBy: actor.id };
      const id = known?.id ?? (await insertOne(trx, 'bom', head));
      if (known !== undefined)
        await trx('bom')
          .where({ id })
          .update({ version: known.version + 1 });
      await saveLines(trx, id, lines);
    }
    const count = boms.reduce((sum, b) => sum + b.lines.length, 0);
    await audit({
      words: `Imported ${counted(boms.length, 'BOM')} valid from ${fromDay}, ${counted(count, 'line')}`,
      subjects: boms.map((b) => ['item', b.itemId] as const),
      after: { fromDay, boms: boms.map((b) => [b.itemId, b.lines.length]) },
    });
    return { boms: boms.length, lines: count };
  },
});

/** Takes a version of a BOM out that no job has planned by. */
export const removeBom = defineAction({
  name: 'removeBom',
  right: 'keep BOMs',
  input: z.object({ bomId: z.number().int(), version: z.number().int() }),
  run: async ({ trx, audit }, { bomId, version }) => {
    const bom = sameVersion(found(await trx('bom').where({ id: bomId }).first(), 'This BOM'), version, 'This BOM');
    if (await trx('planLine').where({ bomId }).first('id'))
      refuse('bom.used', 'A job uses this version, so it can’t be removed. Create a new version instead.');
    const lines = await trx('bomLine').where({ bomId });
    await trx('bomLine').where({ bomId }).delete();
    await trx('bom').where({ id: bomId }).delete();
    const item = found(await trx('item').where({ id: bom.itemId }).first('number'), 'This item');
    await audit({
      words: `Removed BOM of ${item.number} from ${bom.fromDay}`,
      subjects: [['item', bom.itemId]],
      before: { ...bom, lines },
    });
  },
});
