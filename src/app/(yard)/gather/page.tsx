import { asDay } from '@/core/calendar/workdays';
import { loadCompany } from '@/store/company';
import { loadGatherForm } from '@/queries/gather';
import { listOpenNeeds, loadChoices } from '@/queries/needs';
import { FilterChoice, FilterDay, FilterWords } from '@/ui/kit/Filters';
import { place } from '../../server/place';
import { Gather } from './Gather';

export const metadata = { title: 'Gather' };

export default place(async ({ db, person, today, query }) => {
  const supplierId = query.supplier === undefined ? undefined : Number(query.supplier);
  const found = await listOpenNeeds(db, person, today, {
    job: query.job,
    supplierId,
    by: asDay(query.by ?? ''),
    words: query.words,
  });
  const choices = await loadChoices(db, person);
  const { jobs, terms } = await loadGatherForm(db, person);
  return (
    <Gather
      rows={found.rows}
      total={found.total}
      choices={choices}
      terms={terms}
      currency={(await loadCompany(db)).currency}
      filters={
        <>
          <FilterChoice
            name="job"
            label="Job"
            options={[['', 'All live jobs'], ...jobs.map((j) => [j.number, `${j.number} ${j.shortName}`] as const)]}
          />
          <FilterChoice
            name="supplier"
            label="Supplier"
            options={[
              ['', 'All suppliers'],
              ['0', 'No supplier yet'],
              ...choices.suppliers.map((s) => [String(s.id), s.name] as const),
            ]}
          />
          <FilterDay name="by" label="Needed by" />
          <FilterWords label="Part or number" />
        </>
      }
    />
  );
});
