import type { InvoiceRow } from '@/queries/invoices';

const WORDS: Readonly<Record<InvoiceRow['state'], readonly [string, string]>> = {
  entered: ['agrees, to match', ''],
  held: ['held: differs', 'tag-stop'],
  matched: ['matched', 'tag-good'],
  takenOut: ['taken out', ''],
};

export const InvoiceTag = ({ state }: { state: InvoiceRow['state'] }) => (
  <span className={`tag ${WORDS[state][1]}`}>{WORDS[state][0]}</span>
);
