import type { Day } from '@/core/calendar/workdays';

/** What a document is that something happens by. */
export type DocumentKind = 'job' | 'quote' | 'need' | 'order' | 'receipt' | 'invoice' | 'supplier' | 'issue' | 'item';

/** What happened, on whose word and by which document. */
export type Happening = {
  readonly event: string;
  readonly document: DocumentKind;
  readonly documentId: number;
  readonly personId: number;
  readonly day: Day;
  readonly at: string;
};
