import { listPeople } from '@/queries/people/people';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Sheet } from '@/ui/kit/Sheet';
import { SettingsTitle } from '../_shared/company/SettingsTitle';
import { yardPage } from '../../server/yardPage';
import { AddPerson } from './AddPerson';
import { PeopleTable } from './PeopleTable';

export const metadata = { title: 'People and roles' };

export default yardPage(async ({ db, person }) => {
  const people = await listPeople(db, person);
  const signing = people.filter((p) => p.active === 1).length;
  return (
    <Sheet>
      <SettingsTitle title="People and roles" list="people" />
      <PeopleTable people={people} />
      <AddPerson />
      <Shelf facts={<Fact>{signing} people sign in</Fact>} />
    </Sheet>
  );
});
