import { notFound } from 'next/navigation';
import { loadCount } from '@/queries/stores/counts';
import { yardPage } from '../../../../server/yardPage';
import { CountPage } from './CountPage';

export const metadata = { title: 'Count' };

export default yardPage(async ({ db, person, params }) => {
  const view = await loadCount(db, person, Number(params.id) || 0);
  if (view === undefined) notFound();
  return <CountPage view={view} />;
});
