import { loadGatherForm } from '@/queries/buying/gather';
import { gatherFilterOf, listOpenNeeds } from '@/queries/buying/openNeeds';
import { findJobChoice, loadChoice } from '@/queries/frame/choices';
import { FilterChoice, FilterDay, FilterPick, FilterWords, MoreFilters } from '@/ui/kit/Filters';
import { yardPage } from '../../server/yardPage';
import { ListViews } from '../_shared/people/ListViews';
import { Gather } from './Gather';

export const metadata = { title: 'Gather' };

const GROUPED = [
  ['supplier', 'By supplier'],
  ['job', 'By job'],
  ['item', 'By item'],
  ['code', 'By cost code'],
  ['order', 'By order-by date'],
  ['day', 'By needed-by date'],
] as const;

const SHOWN = [
  ['', 'All lines'],
  ['late', 'Late'],
  ['week', 'To order in 7 days'],
  ['trouble', 'With a problem'],
  ['unpriced', 'No price'],
] as const;

const LEADS = [
  ['', 'Any lead time'],
  ['short', 'Up to 5 days'],
  ['middle', '6 to 15 days'],
  ['long', '16 days or more'],
] as const;

const NO_SUPPLIER = { id: 0, number: '', name: 'No supplier yet', detail: '' };

export default yardPage(async ({ db, person, today, query }) => {
  const filter = gatherFilterOf(query);
  const { supplierId, group = 'supplier' } = filter;
  const found = await listOpenNeeds(db, person, today, filter);
  const { terms } = await loadGatherForm(db, person);
  const supplier = supplierId === 0 ? NO_SUPPLIER : await loadChoice(db, person, 'supplier', supplierId, today);
  const job = await findJobChoice(db, person, query.job, today);
  return (
    <Gather
      first={{ rows: found.rows, next: found.next }}
      total={found.total}
      terms={terms}
      group={group}
      filters={
        <>
          <MoreFilters names={['job', 'supplier', 'show', 'lead', 'by']}>
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
            <FilterChoice name="show" label="Which lines" options={SHOWN} />
            <FilterChoice name="lead" label="Lead time, in working days" options={LEADS} />
            <FilterDay name="by" label="Needed by" />
          </MoreFilters>
          <FilterWords label="Item or number" />
          <FilterChoice name="group" label="Group by" fallback="supplier" options={GROUPED} />
          <ListViews list="gather" />
        </>
      }
    />
  );
});
