import { ABOUT, historyFilterOf, loadHistory, nameSubject } from '@/queries/company/history';
import { loadChoice } from '@/queries/frame/choices';
import { History } from '@/ui/company/History';
import { FilterChoice, FilterDay, FilterPick, FilterWords, MoreFilters } from '@/ui/kit/Filters';
import { GoOn, NothingFound, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { TakeOut } from '@/ui/kit/TakeOut';
import { yardPage } from '../../server/yardPage';

export const metadata = { title: 'History' };

const FILTERS = ['about', 'id', 'who', 'from', 'upTo', 'words'] as const;

export default yardPage(async ({ db, person, today, query }) => {
  const filter = historyFilterOf(query);
  const { rows, more } = await loadHistory(db, person, filter, Number(query.before) || undefined);
  const subject = await nameSubject(db, person, filter);
  const who = await loadChoice(db, person, 'person', filter.personId, today);
  return (
    <Sheet>
      <PlaceTitle title={subject === undefined ? 'History' : `History of ${subject}`}>
        {subject === undefined && (
          <FilterChoice name="about" label="Subject" options={[['', 'All subjects'], ...Object.entries(ABOUT)]} />
        )}
        <MoreFilters names={['who', 'from', 'upTo']}>
          <FilterPick name="who" label="Who" all="Everyone" kind="person" by="id" value={who} />
          <FilterDay name="from" label="From" back />
          <FilterDay name="upTo" label="To" back />
        </MoreFilters>
        <FilterWords label="Event" />
        <TakeOut list="history" />
      </PlaceTitle>
      {rows.length === 0 && (
        <NothingFound to="/history" filtered={FILTERS.some((f) => query[f] !== undefined)} title="No history yet">
          Everything done in Kettle Tab is recorded here, with values before and after. Entries are never changed.
        </NothingFound>
      )}
      <History rows={rows} />
      {more && (
        <GoOn to="/history" query={{ ...query, before: rows.at(-1)?.id }}>
          Older entries
        </GoOn>
      )}
    </Sheet>
  );
});
