import { notFound } from 'next/navigation';
import { loadPicking } from '@/queries/stores/picking';
import { yardPage } from '../../../../server/yardPage';
import { PickPage } from './PickPage';

export const metadata = { title: 'Pick' };

export default yardPage(async ({ db, person, params }) => {
  const view = await loadPicking(db, person, params.job ?? '');
  if (view === undefined) notFound();
  return <PickPage key={view.job.id} view={view} />;
});
