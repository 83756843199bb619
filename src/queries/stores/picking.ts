import { LIVE } from '@/core/jobs/states';
import type { Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import type { Tracking } from '@/core/items/kinds';
import { addQ, formatQuantity, NONE, ONE, type Quantity } from '@/core/quantity/quantity';
import { exactFactor, unitOf } from '@/core/quantity/units';
import { freeOf } from '@/core/stores/claims';
import {
  ownToPick,
  pickingList,
  stillToPick,
  type PickingLine,
  type PickTarget,
  type ToPick,
} from '@/core/stores/picking';
import type { PickPaper } from '@/formats/pdf/pickingList';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import { codesOf } from '@/store/find';
import { loadItems } from '@/store/gathering';
import type { Person } from '@/store/people';
import { among, whereIn, rowsOf, rowOf } from '@/store/rows';
import { loadSpots, pileKey } from '@/store/stock/piles';
import { loadNeedStates, type NeedState } from '@/store/tab/needs';
import { dayOnPaper } from '@/workings/orders/orderInWords';
import { permit } from '../permit';

/** A line of a picking list as it is picked and issued. */
export type PickRow = PickTarget & {
  readonly needId: number;
  readonly itemId: number;
  readonly placeId: number;
  readonly ownerId: number | null;
  readonly itemNumber: string;
  readonly unit: string;
  readonly pattern: string;
  readonly place: string;
  /** Where it lies, in words: “A2: 4, A3: 2”. */
  readonly from: string;
  /** Which pieces are there, with their bins. */
  readonly pieces: readonly { readonly number: string; readonly bin: string }[];
};

export type PickingView = {
  readonly job: { readonly id: number; readonly number: string; readonly name: string; readonly startsOn: Day | null };
  readonly rows: readonly PickRow[];
};

type Line = ToPick & Pick<PickRow, 'needId' | 'itemId' | 'placeId' | 'ownerId' | 'unit' | 'pattern'>;

/** What is put by for a job, and what belongs to it, in the order in which one walks by it; undefined for no job. */
export async function loadPicking(db: Db, person: Person, number: string): Promise<PickingView | undefined> {
  permit(person, 'see stores');
  const job = await rowOf<PickingView['job']>(db('job').where({ number }).first('id', 'number', 'name', 'startsOn'));
  if (job === undefined) return undefined;
  const lines = await linesOf(db, job.id);
  const spots = await loadSpots(
    db,
    lines.map((l) => l.itemId),
  );
  const rows = pickingList(lines, groupBy(spots, pileKey));
  const lots = new Map(
    (
      await whereIn(
        db,
        'lot',
        'id',
        rows.flatMap((r) => [...r.pieces.map((p) => p.lotId), ...r.from.flatMap((f) => f.lotId ?? [])]),
      )
    ).map((l) => [l.id, l.number]),
  );
  const numberOf = (id: number | null) => lots.get(id ?? 0) ?? '';
  return { job, rows: rows.map(({ pile: _, ...line }) => asRow(line, numberOf)) };
}

function asRow(line: Omit<PickingLine<Line>, 'pile'>, numberOf: (lotId: number | null) => string): PickRow {
  const pieces = line.pieces.map((p) => ({ number: numberOf(p.lotId), bin: p.bin }));
  const from =
    line.tracking === 'serial'
      ? [...new Set(pieces.map((p) => p.bin))].filter(Boolean).join(', ')
      : line.from
          .map(
            (f) =>
              [f.bin, numberOf(f.lotId)].filter(Boolean).join(' ') +
              (line.from.length > 1 ? `: ${formatQuantity(f.quantity)}` : ''),
          )
          .filter((w) => w !== '' && !w.startsWith(':'))
          .join(', ');
  return { ...line, from, pieces, numbers: pieces.map((p) => p.number) };
}

type Source = {
  readonly needId: number;
  readonly itemId: number;
  readonly placeId: number;
  readonly jobId: number | null;
  readonly quantity: Quantity;
};

async function linesOf(db: Db, jobId: number): Promise<Line[]> {
  const reserved = await rowsOf<Source>(
    db('reservation as r')
      .join('need as n', 'n.id', 'r.needId')
      .where('n.jobId', jobId)
      .whereNotNull('r.placeId')
      .orderByRaw("coalesce(n.needed_on, '~'), r.id")
      .select('r.needId', 'r.itemId', 'r.placeId', 'r.jobId', 'r.quantity'),
  );
  const sources = [...reserved, ...(await ownOf(db, jobId, reserved))];
  const items = await loadItems(
    db,
    sources.map((s) => s.itemId),
  );
  const needs = new Map(
    (
      await whereIn(
        db,
        'need',
        'id',
        sources.map((s) => s.needId),
      )
    ).map((n) => [n.id, n.description]),
  );
  const places = new Map(
    (
      await whereIn(
        db,
        'deliveryPlace',
        'id',
        sources.map((s) => s.placeId),
      )
    ).map((p) => [p.id, p.name]),
  );
  const codes = await codesOf(
    db,
    sources.map((s) => s.itemId),
  );
  const merged = new Map<string, Source>();
  for (const s of sources) {
    const key = `${s.needId}/${pileKey(s)}`;
    merged.set(key, { ...s, quantity: addQ(s.quantity, merged.get(key)?.quantity ?? NONE) });
  }
  return [...merged].flatMap(([key, s]): Line[] => {
    const item = items.get(s.itemId);
    if (item === undefined) return [];
    return [
      {
        ...{ key, needId: s.needId, itemId: s.itemId, placeId: s.placeId, ownerId: s.jobId },
        description: needs.get(s.needId) ?? item.name,
        ...{
          itemNumber: item.number,
          unit: item.unit,
          tracking: item.tracking as Tracking,
          pattern: item.numberPattern,
        },
        codes: codes(item.id),
        ...{ place: places.get(s.placeId) ?? '', pile: pileKey(s), wanted: s.quantity },
      },
    ];
  });
}

/** What belongs to the job and lies here, for the lines that it came for, in the order in which they are needed. */
async function ownOf(db: Db, jobId: number, reserved: readonly Source[]): Promise<Source[]> {
  const piles = await db('stockSum').where({ jobId }).where('quantity', '>', 0).orderBy('placeId');
  if (piles.length === 0) return [];
  const ids = await rowsOf<{ id: number; itemId: number }>(
    db('need')
      .where({ jobId })
      .whereIn(
        'itemId',
        among(
          db,
          piles.map((p) => p.itemId),
        ),
      )
      .orderByRaw("coalesce(needed_on, '~'), id")
      .select('id', 'itemId'),
  );
  const states = new Map(
    (
      await loadNeedStates(
        db,
        ids.map((n) => n.id),
      )
    ).map((n) => [n.id, n]),
  );
  const items = await loadItems(
    db,
    piles.map((p) => p.itemId),
  );
  const free = piles.map((p) => {
    const taken = reserved.filter((r) => r.jobId === jobId && r.itemId === p.itemId && r.placeId === p.placeId);
    return {
      itemId: p.itemId,
      placeId: p.placeId,
      left: freeOf(
        p.quantity,
        taken.map((t) => t.quantity),
      ),
    };
  });
  const wants = ids.map(({ id, itemId }) => ({
    ...{ needId: id, itemId },
    wants: stillWants(states.get(id), items.get(itemId)?.unit ?? '', reserved),
  }));
  return ownToPick(free, wants).map(({ pile: { itemId, placeId }, needId, quantity: q }) => ({
    ...{ needId, itemId, placeId, jobId, quantity: q },
  }));
}

function stillWants(need: NeedState | undefined, unit: string, reserved: readonly Source[]): Quantity {
  const factor = need && exactFactor(unit, need.unit);
  if (need === undefined || factor === undefined) return NONE;
  const { issued, ownIssued } = need.fromStock;
  const own = reserved.filter((r) => r.needId === need.id).map((r) => r.quantity);
  return stillToPick({ needed: need.quantity, given: [issued, ownIssued], factor }, own);
}

export type JobToPick = {
  readonly number: string;
  readonly name: string;
  readonly startsOn: Day | null;
  readonly readyOn: Day | null;
  readonly lines: number;
};

/** Items by job of which its picking list has a line: reserved for it, or its own and wanted by a line of it still. */
const TO_PICK = `(select n.job_id, r.item_id from reservation r join need n on n.id = r.need_id where r.place_id is not null
  union select s.job_id, s.item_id from stock_sum s where s.job_id > 0 and s.quantity > 0 and exists (
    select 1 from need n where n.job_id = s.job_id and n.item_id = s.item_id
      and n.quantity > coalesce((select sum(i.share) from issue i where i.need_id = n.id), 0))) as t`;

/** Live jobs that something is put by for, or lies here for: the complete first, those that start soonest before others. */
export async function listToPick(
  db: Db,
  person: Person,
  { most, ready = false }: { readonly most: number; readonly ready?: boolean },
): Promise<{ readonly rows: readonly JobToPick[]; readonly count: number }> {
  permit(person, 'see stores');
  const found = () => {
    const query = db(db.raw(TO_PICK) as never)
      .join('job as j', 'j.id', 't.jobId')
      .where('j.state', LIVE);
    return ready ? query.whereNotNull('j.readyOn') : query;
  };
  const rows = await rowsOf<JobToPick>(
    found()
      .groupBy('j.id')
      .orderByRaw("j.ready_on is null, coalesce(j.starts_on, '~'), j.id")
      .limit(most)
      .select('j.number', 'j.name', 'j.startsOn', 'j.readyOn')
      .count({ lines: '*' }),
  );
  const [jobs] = await rowsOf<{ n: number }>(found().countDistinct({ n: 'j.id' }));
  return { rows, count: jobs?.n ?? 0 };
}

/** The picking list of a job as it is printed. */
export async function loadPickPaper(
  db: Db,
  person: Person,
  number: string,
  today: Day,
): Promise<PickPaper | undefined> {
  const view = await loadPicking(db, person, number);
  if (view === undefined) return undefined;
  const { name, paper } = await loadCompany(db);
  const { job, rows } = view;
  return {
    job: `${job.number} ${job.name}`,
    company: name,
    size: paper,
    date: dayOnPaper(today, today),
    starts: job.startsOn === null ? '–' : dayOnPaper(job.startsOn, today),
    lines: rows.map((r) => ({
      place: r.place,
      bin:
        r.tracking === 'serial'
          ? r.pieces.map((p) => [p.number, p.bin].filter(Boolean).join(' in ')).join(', ')
          : r.from,
      description: r.description,
      number: r.itemNumber,
      quantity: [formatQuantity(r.wanted), unitOf(r.unit).short].filter(Boolean).join(' '),
      boxes: r.tracking === 'serial' ? r.wanted / ONE : 0,
    })),
  };
}
