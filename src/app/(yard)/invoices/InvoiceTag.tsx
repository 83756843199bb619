import type { InvoiceRow } from '@/queries/invoices/invoices';

const WORDS: Readonly<Record<InvoiceRow['state'], readonly [string, string]>> = {
  entered: ['to match', ''],
  held: ['held: differs from order', 'tag-stop'],
  matched: ['matched', 'tag-good'],
  takenOut: ['void', ''],
};

export const InvoiceTag = ({ state }: { state: InvoiceRow['state'] }) => (
  <span className={`tag ${WORDS[state][1]}`}>{WORDS[state][0]}</span>
);
