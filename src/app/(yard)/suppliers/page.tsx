import Link from '@/ui/Link';
import { may } from '@/core/people/rights';
import { listSuppliers } from '@/queries/suppliers';
import { FilterWords } from '@/ui/kit/Filters';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Empty, GoOn, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { TakeOut } from '@/ui/kit/TakeOut';
import { place } from '../../server/place';
import { SuppliersTable } from './SuppliersTable';

export const metadata = { title: 'Suppliers' };

export default place(async ({ db, person, query }) => {
  const { rows, more } = await listSuppliers(db, person, query.words, query.after);
  return (
    <Sheet>
      <PlaceTitle title="Suppliers" count={rows.length}>
        <FilterWords label="Supplier’s name" />
        <TakeOut list="suppliers" />
      </PlaceTitle>
      {rows.length === 0 ? (
        <Empty title="No supplier is here yet">
          Add those you buy from: their e-mail address, terms and lead time.{' '}
          <Link href="/suppliers/new" className="step">
            Add a supplier
          </Link>
        </Empty>
      ) : (
        <SuppliersTable rows={rows} />
      )}
      {more && (
        <GoOn to="/suppliers" query={{ ...query, after: rows.at(-1)?.name }}>
          More suppliers
        </GoOn>
      )}
      <Shelf facts={<Fact>Enter opens the row that is marked</Fact>}>
        {may(person, 'keep suppliers') && (
          <Link href="/suppliers/new" className="btn btn-main h-[38px]">
            Add a supplier
          </Link>
        )}
      </Shelf>
    </Sheet>
  );
});
