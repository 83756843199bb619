import '@fontsource-variable/atkinson-hyperlegible-mono';
import '@fontsource-variable/bricolage-grotesque';
import '@fontsource-variable/commissioner';
import '@/ui/theme.css';
import '@/ui/ledger/ledger.css';
import '@/ui/entry/entry.css';
import type { Metadata, Viewport } from 'next';
import { NuqsAdapter } from 'nuqs/adapters/next/app';
import type { ReactNode } from 'react';
import { whoIsHere } from './server/session';

export const metadata: Metadata = {
  title: { default: 'Kettle Tab', template: '%s · Kettle Tab' },
  description: 'Buying for jobs, with committed cost against each budget',
};
export const viewport: Viewport = { width: 'device-width', initialScale: 1, themeColor: '#0f3b3a' };

export default async function Root({ children }: { children: ReactNode }) {
  const person = await whoIsHere();
  return (
    <html lang="en-GB" data-theme={person?.theme ?? 'day'}>
      <body>
        <NuqsAdapter>{children}</NuqsAdapter>
      </body>
    </html>
  );
}
