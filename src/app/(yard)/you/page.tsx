import { may } from '@/core/people/rights';
import { getsCopies, listMySignIns } from '@/queries/people';
import { clock } from '@/server/setting';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { counted } from '@/core/words';
import { place } from '../../server/place';
import { signedIn } from '../../server/session';
import { Copies } from './Copies';
import { ChangePassword } from './ChangePassword';
import { SignIns } from './SignIns';

export const metadata = { title: 'Your sign-ins' };

export default place(async ({ db, person }) => {
  const rows = await listMySignIns(db, person, clock.now());
  const own = (await signedIn())?.sessionId ?? 0;
  return (
    <Sheet
      aside={
        <>
          {may(person, 'send orders') && <Copies on={await getsCopies(db, person)} email={person.email} />}
          <ChangePassword keep={own} />
        </>
      }
    >
      <PlaceTitle title="Your sign-ins" count={person.email} />
      <SignIns rows={rows} own={own} />
      <Shelf facts={<Fact>{counted(rows.length, 'sign-in')}</Fact>} />
    </Sheet>
  );
});
