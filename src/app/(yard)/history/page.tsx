import { ABOUT, historyFilterOf, loadHistory, nameSubject } from '@/queries/history';
import { loadThing } from '@/queries/things';
import { History } from '@/ui/History';
import { FilterChoice, FilterDay, FilterPick, FilterWords, MoreFilters } from '@/ui/kit/Filters';
import { GoOn, NothingFound, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { TakeOut } from '@/ui/kit/TakeOut';
import { place } from '../../server/place';

export const metadata = { title: 'History' };

const FILTERS = ['about', 'id', 'who', 'from', 'upTo', 'words'] as const;

export default place(async ({ db, person, today, query }) => {
  const filter = historyFilterOf(query);
  const { rows, more } = await loadHistory(db, person, filter, Number(query.before) || undefined);
  const subject = await nameSubject(db, person, filter);
  const who = await loadThing(db, person, 'person', filter.personId, today);
  return (
    <Sheet>
      <PlaceTitle title={subject === undefined ? 'History' : `History of ${subject}`}>
        {subject === undefined && (
          <FilterChoice
            name="about"
            label="About what"
            options={[['', 'About everything'], ...Object.entries(ABOUT)]}
          />
        )}
        <MoreFilters names={['who', 'from', 'upTo']}>
          <FilterPick name="who" label="Who" all="By everybody" kind="person" by="id" value={who} />
          <FilterDay name="from" label="From" back />
          <FilterDay name="upTo" label="To" back />
        </MoreFilters>
        <FilterWords label="What happened" />
        <TakeOut list="history" />
      </PlaceTitle>
      {rows.length === 0 && (
        <NothingFound
          to="/history"
          filtered={FILTERS.some((f) => query[f] !== undefined)}
          title="Nothing has happened yet"
        >
          Whatever is done in Kettle Tab is told here, with what stood there before and after. Nothing of it is ever
          rewritten.
        </NothingFound>
      )}
      <History rows={rows} />
      {more && (
        <GoOn to="/history" query={{ ...query, before: rows.at(-1)?.id }}>
          What happened before
        </GoOn>
      )}
    </Sheet>
  );
});
