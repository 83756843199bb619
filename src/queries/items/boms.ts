import type { Bom, BomLine, GotBy, Offset } from '@/core/boms/bom';
import { rollUp } from '@/core/boms/cost';
import { explode } from '@/core/boms/explode';
import { madeInOrder, type MadePart } from '@/core/boms/levels';
import { readBoms, type FileLine, type FileRead } from '@/core/boms/rows';
import type { Day } from '@/core/calendar/workdays';
import type { Minor } from '@/core/money/money';
import { may } from '@/core/people/rights';
import type { Quantity } from '@/core/quantity/quantity';
import { done, refusal, refused, type Result } from '@/core/result';
import { readSheet } from '@/formats/sheet/read';
import { bomsOn, loadBomsBelow, withLines } from '@/store/boms';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import { loadEstimates } from '@/store/estimates';
import { loadItems } from '@/store/gathering';
import type { Person } from '@/store/people';
import { whereIn } from '@/store/rows';
import { permit } from '../permit';

export type BomLineView = BomLine & {
  readonly number: string | null;
  readonly code: string | null;
  readonly codeName: string | null;
};

export type BomView = {
  readonly id: number;
  readonly version: number;
  readonly fromDay: Day;
  readonly note: string;
  readonly makingDays: number;
  readonly lines: readonly BomLineView[];
};

export type BomOfItem = {
  /** Its versions, the latest first. */
  readonly versions: readonly { readonly id: number; readonly fromDay: Day; readonly note: string }[];
  /** The version that is looked at; undefined where it has none yet. */
  readonly bom: BomView | undefined;
};

/** The BOM of an item: a version of it, or that which holds on a day. */
export async function loadBom(
  db: Db,
  person: Person,
  itemId: number,
  { bomId, on }: { readonly bomId?: number | undefined; readonly on: Day },
): Promise<BomOfItem> {
  permit(person, 'see jobs');
  const rows = await db('bom').where({ itemId }).orderBy('fromDay', 'desc');
  const row = rows.find((r) => r.id === bomId) ?? rows.find((r) => r.fromDay <= on) ?? rows.at(-1);
  const versions = rows.map(({ id, fromDay, note }) => ({ id, fromDay, note }));
  if (row === undefined) return { versions, bom: undefined };
  const [bom] = await withLines(db, [row]);
  const { id, version, fromDay, note, makingDays } = row;
  return {
    versions,
    bom: {
      ...{ id, version, fromDay, note, makingDays },
      lines: await viewLines(db, person, bom?.lines ?? []),
    },
  };
}

/** Lines of BOMs with what they are called; without what things cost for those who may not see it. */
async function viewLines(db: Db, person: Person, lines: readonly BomLine[]): Promise<BomLineView[]> {
  const items = await loadItems(
    db,
    lines.flatMap((l) => l.itemId ?? []),
  );
  const codes = new Map(
    (
      await whereIn(
        db,
        'costCode',
        'id',
        lines.flatMap((l) => l.costCodeId ?? []),
      )
    ).map((c) => [c.id, c]),
  );
  const money = may(person, 'see money');
  return lines.map((l) => {
    const code = codes.get(l.costCodeId ?? 0);
    return {
      ...l,
      price: money ? l.price : null,
      number: items.get(l.itemId ?? 0)?.number ?? null,
      code: code?.code ?? null,
      codeName: code?.name ?? null,
    };
  });
}

/** The BOM that a branch of the tree stands in, or has below it. */
export type BranchBom = { readonly bomId: number; readonly version: number };

export type BranchView = {
  /** The line of a saved BOM that it is, and that BOM; null for what the BOM itself lists, which is filled in above. */
  readonly line: (BranchBom & { readonly text: BomLineView }) | null;
  /** The BOM by which it is made in its turn. */
  readonly below: BranchBom | null;

  readonly level: number;
  readonly gotBy: GotBy;
  readonly itemId: number | null;
  readonly number: string | null;
  readonly description: string;
  readonly quantity: Quantity;
  readonly unit: string;
  /** What it comes to, over all that is below it; null without the right to see money. */
  readonly cost: Minor | null;
  /** Whether something in it has no price. */
  readonly partly: boolean;
};

export type Worked = {
  readonly branches: readonly BranchView[];
  /** What is made, in an order in which it can be. */
  readonly made: readonly MadePart[];
  readonly whole: { readonly cost: Minor | null; readonly partly: boolean };
  /** Why it cannot be worked out. */
  readonly fault: string | undefined;
};

/** What a batch takes and costs by a BOM as it is typed, over all levels. */
export async function workOut(
  db: Db,
  person: Person,
  bom: Bom,
  batch: Quantity,
  { on, today }: { readonly on: Day; readonly today: Day },
): Promise<Worked> {
  permit(person, 'see jobs');
  const { currency } = await loadCompany(db);
  const boms = await loadBomsBelow(db, [bom], on);
  const exploded = explode(bom, batch, boms);
  if (!exploded.ok)
    return { branches: [], made: [], whole: { cost: null, partly: false }, fault: exploded.refusals[0]?.message };
  const parts = exploded.value;
  const itemIds = [...new Set(parts.flatMap((p) => p.line.itemId ?? []))];
  const items = await loadItems(db, itemIds);
  const views = await viewLines(
    db,
    person,
    parts.map((p) => p.line),
  );
  const versions = new Map(
    (
      await whereIn(
        db,
        'bom',
        'id',
        parts.flatMap((p) => p.bom?.id ?? []),
      )
    ).map((b) => [b.id, b.version]),
  );
  const bomOf = (own: Bom | undefined): BranchBom | null =>
    own === undefined ? null : { bomId: own.id, version: versions.get(own.id) ?? 0 };
  const estimate = await loadEstimates(db, itemIds, today);
  const { parts: costs, whole } = rollUp(
    parts,
    (line, part) => line.price ?? estimate({ ...line, quantity: part.quantity }).price ?? undefined,
    currency,
  );
  const money = may(person, 'see money');
  return {
    branches: parts.map(({ level, line, parent, bom: own, quantity }, k) => {
      const within = parent === undefined ? null : bomOf(parts[parent]?.bom);
      const text = views[k];
      return {
        line: within === null || text === undefined ? null : { ...within, text },
        below: bomOf(own),
        ...{ level, gotBy: line.gotBy, itemId: line.itemId, description: line.description, quantity, unit: line.unit },
        number: items.get(line.itemId ?? 0)?.number ?? null,
        cost: money ? (costs[k]?.amount ?? null) : null,
        partly: costs[k]?.partly ?? false,
      };
    }),
    made: madeInOrder(bom, boms, parts),
    whole: { cost: money ? whole.amount : null, partly: whole.partly },
    fault: undefined,
  };
}

export type BomFile = {
  readonly style: FileRead['style'];
  readonly boms: readonly {
    readonly number: string;
    readonly name: string;
    readonly lines: number;
    readonly before: number;
  }[];
  readonly problems: FileRead['problems'];
  readonly problemCount: number;
  /** What is brought in, as the action takes it; none as long as something stops it. */
  readonly taken: readonly { readonly itemId: number; readonly lines: readonly TakenLine[] }[];
};
type TakenLine = Omit<FileLine, 'offset'> & {
  readonly offsetDays: number;
  readonly offsetFrom: Offset['from'];
  readonly costCodeId: null;
  readonly price: null;
};

const PROBLEMS_SHOWN = 200;

/** What a file of BOMs holds, beside the BOMs that hold on a day, and what is wrong with it. */
export async function readBomFile(
  db: Db,
  person: Person,
  itemId: number,
  bytes: Uint8Array,
  on: Day,
): Promise<Result<BomFile>> {
  permit(person, 'keep BOMs');
  const sheet = await readSheet(bytes);
  if (!sheet.ok) return sheet;
  const made = new Set((await db('bom').distinct('itemId')).map((b) => b.itemId));
  const items = (await db('item').select('id', 'number', 'name', 'unit')).map((i) => ({ ...i, made: made.has(i.id) }));
  const top = items.find((i) => i.id === itemId);
  if (top === undefined) return refused(refusal('missing', 'This item no longer exists.'));
  const { headings, rows, mark } = sheet.value;
  const { style, boms, problems } = readBoms(headings, rows, top, { items, mark: mark ?? '.' });
  const held = await withLines(
    db,
    await bomsOn(
      db,
      boms.map((b) => b.item.id),
      on,
    ),
  );
  const stopped = problems.some((p) => p.weight === 'stop');
  return done({
    style,
    boms: boms.map(({ item, lines }) => ({
      number: item.number,
      name: item.name,
      lines: lines.length,
      before: held.find((b) => b.itemId === item.id)?.lines.length ?? 0,
    })),
    problems: problems.slice(0, PROBLEMS_SHOWN),
    problemCount: problems.length,
    taken: stopped
      ? []
      : boms.map(({ item, lines }) => ({
          itemId: item.id,
          lines: lines.map(({ offset, ...l }) => ({
            ...l,
            ...{ offsetDays: offset.days, offsetFrom: offset.from, costCodeId: null, price: null },
          })),
        })),
  });
}
