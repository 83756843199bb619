import { findJobChoice, loadChoice } from '@/queries/frame/choices';
import { countDock, dueFilter, listDue, type DockShow } from '@/queries/dock/dock';
import { FilterChoice, FilterPick, FilterWords, MoreFilters } from '@/ui/kit/Filters';
import { may } from '@/core/people/rights';
import { Fact, Shelf, ShelfNext } from '@/ui/kit/Shelf';
import { Empty, GoOn, NothingFound, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { TakeOut } from '@/ui/kit/TakeOut';
import { yardPage } from '../../server/yardPage';
import { DueTable } from './DueTable';

export const metadata = { title: 'Dock' };

const SHOWN: readonly (readonly [DockShow | '', string])[] = [
  ['', 'All deliveries here'],
  ['late', 'Late'],
  ['today', 'Due by today'],
  ['week', 'Due in 7 days'],
  ['straight', 'Direct deliveries'],
  ['inspect', 'Awaiting inspection'],
  ['back', 'Rejected, to return'],
];

const ABOUT: Partial<Record<DockShow, string>> = {
  straight: 'Delivered direct to a customer, a site or a subcontractor: confirmed here, never in stores.',
  inspect: 'Here, awaiting inspection.',
  back: 'Rejected, kept here until it is returned.',
};

export default yardPage(async ({ db, person, today, query }) => {
  const filter = dueFilter(query);
  const { rows, next } = await listDue(db, person, today, { ...filter, after: query.after });
  const counts = await countDock(db, person, today);
  const supplier = await loadChoice(db, person, 'supplier', filter.supplierId, today);
  const job = await findJobChoice(db, person, query.job, today);
  const filtered = ['words', 'show', 'supplier', 'job'].some((f) => query[f] !== undefined);
  const options = SHOWN.map(([key, words]) => [key, key === '' ? words : `${words} · ${counts[key]}`] as const);
  return (
    <Sheet>
      <PlaceTitle title="Dock" count={`${rows.length}${next === undefined ? '' : '+'} to come`}>
        <FilterChoice name="show" label="Show" options={options} />
        <MoreFilters names={['supplier', 'job']}>
          <FilterPick name="supplier" label="Supplier" all="All suppliers" kind="supplier" by="id" value={supplier} />
          <FilterPick name="job" label="Job" all="All jobs" kind="job" by="number" value={job} />
        </MoreFilters>
        <FilterWords label="Order, supplier or item" />
        <TakeOut list="dock" />
      </PlaceTitle>
      {filter.show !== undefined && ABOUT[filter.show] !== undefined && (
        <p className="mb-3 text-ink-2">{ABOUT[filter.show]}</p>
      )}
      {rows.length === 0 ? (
        filtered ? (
          <NothingFound to="/dock" filtered title="No matches">
            Nothing matches these filters.
          </NothingFound>
        ) : (
          <Empty title="Nothing on its way">Sent orders appear here until everything is received.</Empty>
        )
      ) : (
        <DueTable rows={rows} show={filter.show} />
      )}
      {next !== undefined && (
        <GoOn to="/dock" query={{ ...query, after: next }}>
          Later deliveries
        </GoOn>
      )}
      <Shelf
        facts={
          <>
            <Fact strong>{counts.late === 0 ? 'Nothing is late' : `${counts.late} late`}</Fact>
            {counts.inspect > 0 && <Fact>{counts.inspect} to inspect</Fact>}
            {counts.back > 0 && <Fact>{counts.back} to return</Fact>}
          </>
        }
      >
        {may(person, 'receive') && <ShelfNext next={{ words: 'Scan in', href: '/dock/scan' }} main />}
      </Shelf>
    </Sheet>
  );
});
