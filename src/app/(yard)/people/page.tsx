import Link from '@/ui/Link';
import { ROLE_NAMES } from '@/core/people/rights';
import { listPeople } from '@/queries/people';
import { loadCompany, loadCostCodes, loadTaxCodes } from '@/store/company';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { place } from '../../server/place';
import { AddPerson } from './AddPerson';

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
      <table className="ledger" aria-label="People">
        <thead>
          <tr>
            <th>Name</th>
            <th className="max-phone:hidden">E-mail</th>
            <th>Roles</th>
          </tr>
        </thead>
        <tbody>
          {people.map((p) => (
            <tr key={p.id}>
              <td className="!font-semibold">
                <span className="flex flex-wrap items-center gap-x-2">
                  <Link href={`/people/${p.id}`} className="hover:underline">
                    {p.name}
                  </Link>
                  {p.active === 0 && <span className="tag">let in no more</span>}
                </span>
              </td>
              <td className="max-phone:hidden">{p.email}</td>
              <td>{p.roles.map((r) => ROLE_NAMES[r]).join(', ')}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <AddPerson />
      <Shelf facts={<Fact>{signing} people sign in</Fact>} />
    </Sheet>
  );
});
