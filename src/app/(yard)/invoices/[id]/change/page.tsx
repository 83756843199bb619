import { notFound } from 'next/navigation';
import { loadInvoiceChange } from '@/queries/invoices/invoices';
import { Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../../../server/yardPage';
import { InvoiceForm } from '../../new/InvoiceForm';

export const metadata = { title: 'Edit invoice' };

export default yardPage(async ({ db, person, params }) => {
  const form = await loadInvoiceChange(db, person, Number(params.id));
  if (form === undefined) notFound();
  return (
    <Sheet>
      <InvoiceForm key={form.invoice?.invoice.version} {...form} />
    </Sheet>
  );
});
