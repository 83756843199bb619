import Link from '@/ui/Link';
import { may } from '@/core/people/rights';
import { INVOICE_FILTERS, listInvoices } from '@/queries/invoices';
import { FilterChoice, FilterWords } from '@/ui/kit/Filters';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Empty, GoOn, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { asked } from '@/core/asked';
import { TakeOut } from '@/ui/kit/TakeOut';
import { place } from '../../server/place';
import { InvoicesTable } from './InvoicesTable';

export const metadata = { title: 'Invoices' };

export default place(async ({ db, person, query }) => {
  const show = asked(INVOICE_FILTERS, query.show) ?? 'waiting';
  const { rows, more } = await listInvoices(db, person, {
    show,
    words: query.words,
    before: query.before === undefined ? undefined : Number(query.before),
  });
  return (
    <Sheet>
      <PlaceTitle title="Invoices" count={`${rows.length}${more ? ' of more' : ''}`}>
        <FilterChoice
          name="show"
          label="Which invoices"
          fallback="waiting"
          options={[
            ['waiting', 'To match'],
            ['matched', 'Matched'],
            ['all', 'All invoices'],
          ]}
        />
        <FilterWords label="Number, supplier or order" />
        <TakeOut list="invoices" />
      </PlaceTitle>
      {rows.length === 0 ? (
        <Empty title="No invoice waits">
          When a supplier’s bill comes, enter it against its order.{' '}
          <Link href="/invoices/new" className="step">
            Enter an invoice
          </Link>
        </Empty>
      ) : (
        <InvoicesTable rows={rows} />
      )}
      {more && (
        <GoOn to="/invoices" query={{ ...query, before: rows.at(-1)?.id }}>
          Older invoices
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
            Enter an invoice
          </Link>
        )}
      </Shelf>
    </Sheet>
  );
});
