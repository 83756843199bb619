import { notFound } from 'next/navigation';
import { loadCount } from '@/queries/stores/counts';
import { page } from '../../../../server/page';
import { CountPage } from './CountPage';

export const metadata = { title: 'Count' };

export default page(async ({ db, person, params }) => {
  const view = await loadCount(db, person, Number(params.id) || 0);
  if (view === undefined) notFound();
  return <CountPage view={view} />;
});
