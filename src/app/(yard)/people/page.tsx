import { listPeople } from '@/queries/people';
import { loadCompany, loadCostCodes, loadTaxCodes } from '@/store/company';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { place } from '../../server/place';
import { AddPerson } from './AddPerson';
import { PeopleTable } from './PeopleTable';

export const metadata = { title: 'People and company' };

export default place(async ({ db, person }) => {
  const people = await listPeople(db, person);
  const signing = people.filter((p) => p.active === 1).length;
  const [company, codes, taxes] = [await loadCompany(db), await loadCostCodes(db), await loadTaxCodes(db)];
  const aside = (
    <>
      <h2 className="text-[16px]">{company.name}</h2>
      <p className="whitespace-pre-line text-ink-2">{company.address}</p>
      <p className="mt-1 text-ink-2">
        {company.email} · {company.currency}
      </p>
      <h2 className="mt-4 mb-1 text-[16px]">Cost codes</h2>
      <ul>
        {codes.map((c) => (
          <li key={c.id}>
            <b>{c.code}</b> {c.name}
          </li>
        ))}
      </ul>
      <h2 className="mt-4 mb-1 text-[16px]">Taxes</h2>
      <ul>
        {taxes.map((t) => (
          <li key={t.id}>{t.name}</li>
        ))}
      </ul>
    </>
  );
  return (
    <Sheet aside={aside}>
      <PlaceTitle title="People" count={`${signing} who sign in`} />
      <PeopleTable people={people} />
      <AddPerson />
      <Shelf facts={<Fact>{signing} people sign in</Fact>} />
    </Sheet>
  );
});
