import Link from '@/ui/kit/Link';
import { may } from '@/core/people/rights';
import { INVOICE_FILTERS, listInvoices, sumInvoices } from '@/queries/invoices/invoices';
import { FilterChoice, FilterWords } from '@/ui/kit/Filters';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { GoOn, NothingFound, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { keyIn } from '@/core/keyIn';
import { TakeOut } from '@/ui/kit/TakeOut';
import { yardPage } from '../../server/yardPage';
import { ListViews } from '../_shared/people/ListViews';
import { InvoicesTable } from './InvoicesTable';

export const metadata = { title: 'Invoices' };

export default yardPage(async ({ db, person, query }) => {
  const show = keyIn(INVOICE_FILTERS, query.show) ?? 'waiting';
  const filter = { show, words: query.words, sort: query.sort, after: query.after };
  const { rows, next, sorts } = await listInvoices(db, person, filter);
  const foot = await sumInvoices(db, person, filter);
  return (
    <Sheet>
      <PlaceTitle title="Invoices">
        <FilterChoice
          name="show"
          label="Status"
          fallback="waiting"
          options={[
            ['waiting', 'To match'],
            ['matched', 'Matched'],
            ['all', 'All invoices'],
          ]}
        />
        <FilterWords label="Number, supplier or order" />
        <ListViews list="invoices" />
        <TakeOut list="invoices" />
      </PlaceTitle>
      {rows.length === 0 ? (
        <NothingFound
          to="/invoices"
          filtered={query.words !== undefined || query.show !== undefined}
          title="No invoices waiting"
        >
          Enter each supplier’s invoice against its order.{' '}
          <Link href="/invoices/new" className="step">
            Enter invoice
          </Link>
        </NothingFound>
      ) : (
        <InvoicesTable rows={rows} list={{ name: 'invoices', sorts, foot }} />
      )}
      {next !== undefined && (
        <GoOn to="/invoices" query={{ ...query, after: next }}>
          More invoices
        </GoOn>
      )}
      <Shelf
        facts={
          <Fact>
            {rows.filter((r) => r.state === 'held').length} held, {rows.filter((r) => r.state === 'entered').length} to
            match
          </Fact>
        }
      >
        {may(person, 'enter invoices') && (
          <Link href="/invoices/new" className="btn btn-main h-[38px]">
            Enter invoice
          </Link>
        )}
      </Shelf>
    </Sheet>
  );
});
