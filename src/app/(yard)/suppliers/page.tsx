import Link from '@/ui/kit/Link';
import { may } from '@/core/people/rights';
import { listSuppliers, sumSuppliers } from '@/queries/items/suppliers';
import { FilterWords } from '@/ui/kit/Filters';
import { RowKeys, Shelf } from '@/ui/kit/Shelf';
import { GoOn, NothingFound, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { TakeOut } from '@/ui/kit/TakeOut';
import { yardPage } from '../../server/yardPage';
import { ListViews } from '../_shared/people/ListViews';
import { SuppliersTable } from './SuppliersTable';

export const metadata = { title: 'Suppliers' };

export default yardPage(async ({ db, person, query }) => {
  const { rows, next, sorts } = await listSuppliers(db, person, query);
  const foot = await sumSuppliers(db, person, query);
  return (
    <Sheet>
      <PlaceTitle title="Suppliers">
        <FilterWords label="Supplier’s name" />
        <ListViews list="suppliers" />
        <TakeOut list="suppliers" />
      </PlaceTitle>
      {rows.length === 0 ? (
        <NothingFound to="/suppliers" filtered={query.words !== undefined} title="No suppliers yet">
          Add the suppliers you buy from, with their order email, terms and lead time.{' '}
          <Link href="/suppliers/new" className="step">
            New supplier
          </Link>
        </NothingFound>
      ) : (
        <SuppliersTable rows={rows} list={{ name: 'suppliers', sorts, foot }} />
      )}
      {next !== undefined && (
        <GoOn to="/suppliers" query={{ ...query, after: next }}>
          More suppliers
        </GoOn>
      )}
      <Shelf facts={<RowKeys />}>
        {may(person, 'keep suppliers') && (
          <Link href="/suppliers/new" className="btn btn-main h-[38px]">
            New supplier
          </Link>
        )}
      </Shelf>
    </Sheet>
  );
});
