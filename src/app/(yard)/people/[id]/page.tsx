import { notFound } from 'next/navigation';
import { loadPerson } from '@/queries/people/people';
import { clock } from '@/server/setting';
import { Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../../server/yardPage';
import { PersonForm } from './PersonForm';
import { SigningIn } from './SigningIn';

export const metadata = { title: 'Person' };

export default yardPage(async ({ db, person, params }) => {
  const of = await loadPerson(db, person, Number(params.id), clock.now());
  if (of === undefined) notFound();
  return (
    <Sheet aside={<SigningIn person={of} />}>
      <PersonForm key={of.version} person={of} />
    </Sheet>
  );
});
