import { notFound } from 'next/navigation';
import { loadPicking } from '@/queries/stores/picking';
import { page } from '../../../../server/page';
import { PickPage } from './PickPage';

export const metadata = { title: 'Pick' };

export default page(async ({ db, person, params }) => {
  const view = await loadPicking(db, person, params.job ?? '');
  if (view === undefined) notFound();
  return <PickPage key={view.job.id} view={view} />;
});
