import { asDay } from '@/core/calendar/workdays';
import { loadGatherForm } from '@/queries/gather';
import { asked } from '@/core/asked';
import { GATHER_GROUPS, listOpenNeeds } from '@/queries/openNeeds';
import { findJobThing, loadThing } from '@/queries/things';
import { FilterChoice, FilterDay, FilterPick, FilterWords } from '@/ui/kit/Filters';
import { place } from '../../server/place';
import { ListViews } from '../ListViews';
import { Gather } from './Gather';

export const metadata = { title: 'Gather' };

const GROUPED = [
  ['supplier', 'By supplier'],
  ['job', 'By job'],
  ['item', 'By part'],
  ['code', 'By cost code'],
  ['day', 'By day needed'],
] as const;

const NO_SUPPLIER = { id: 0, number: '', name: 'No supplier yet', detail: '' };

export default place(async ({ db, person, today, query }) => {
  const supplierId = query.supplier === undefined ? undefined : Number(query.supplier);
  const group = asked(GATHER_GROUPS, query.group) ?? 'supplier';
  const found = await listOpenNeeds(db, person, today, {
    job: query.job,
    supplierId,
    by: asDay(query.by ?? ''),
    words: query.words,
    group,
  });
  const { terms } = await loadGatherForm(db, person);
  const supplier = supplierId === 0 ? NO_SUPPLIER : await loadThing(db, person, 'supplier', supplierId, today);
  const job = await findJobThing(db, person, query.job, today);
  return (
    <Gather
      rows={found.rows}
      total={found.total}
      terms={terms}
      group={group}
      filters={
        <>
          <FilterPick name="job" label="Job" all="All live jobs" kind="job" by="number" value={job} />
          <FilterPick
            name="supplier"
            label="Supplier"
            all="All suppliers"
            kind="supplier"
            by="id"
            value={supplier}
            also={[NO_SUPPLIER]}
          />
          <FilterDay name="by" label="Needed by" />
          <FilterWords label="Part or number" />
          <FilterChoice name="group" label="Together by" fallback="supplier" options={GROUPED} />
          <ListViews list="gather" />
        </>
      }
    />
  );
});
