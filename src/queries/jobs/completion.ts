import { rowsOf } from '@/store/rows';
import type { Day } from '@/core/calendar/workdays';
import { completionOf, completionOfAll, type Completion, type Estimate } from '@/core/tab/completion';
import type { Level } from '@/core/tab/sums';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import type { CompletionRow, CostCode } from '@/store/tables';
import { loadTab } from './job';
import { permit } from '../permit';

/** How one cost code of a job ends, with who said so where somebody did. */
export type CompletionRowView = {
  readonly code: CostCode;
  readonly level: Level;
  readonly ends: Completion;
  readonly said: (Estimate & { readonly reason: string; readonly who: string; readonly day: Day }) | null;
};

export type CompletionView = {
  readonly rows: readonly CompletionRowView[];
  readonly whole: ReturnType<typeof completionOfAll>;
};

/** The cost of a job at completion by cost code, as it looks now or looked at the end of a day. */
export async function loadCompletion(db: Db, person: Person, jobId: number, on?: Day): Promise<CompletionView> {
  permit(person, 'see money');
  const { rows: levels } = await loadTab(db, person, jobId, on);
  const latest = db('completion')
    .where({ jobId })
    .where('day', '<=', on ?? '9999-12-31')
    .groupBy('costCodeId')
    .max('id');
  const said = await rowsOf<Pick<CompletionRow, 'costCodeId' | 'amount' | 'done' | 'reason' | 'day'> & { who: string }>(
    db('completion as c')
      .join('person as p', 'p.id', 'c.personId')
      .whereIn('c.id', latest)
      .select('c.costCodeId', 'c.amount', 'c.done', 'c.reason', 'c.day', { who: 'p.name' }),
  );
  const rows = levels.map(({ code, ...level }): CompletionRowView => {
    const own = said.find((s) => s.costCodeId === code.id);
    const known = own !== undefined && (own.amount !== null || own.done !== null) ? own : null;
    return { code, level, ends: completionOf(level, known ?? undefined), said: known };
  });
  return { rows, whole: completionOfAll(rows.map((r) => r.ends)) };
}
