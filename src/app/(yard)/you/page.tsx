import { may } from '@/core/people/rights';
import { listMySignIns, loadOwnSettings } from '@/queries/people/people';
import { clock } from '@/server/setting';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { counted } from '@/core/words';
import { yardPage } from '../../server/yardPage';
import { signedIn } from '../../server/session';
import { Mail } from './Mail';
import { loadOwnDeputies } from '@/queries/signoff/ladder';
import { Deputies } from '../_shared/signoff/Deputies';
import { ChangePassword } from './ChangePassword';
import { Feed } from './Feed';
import { SignIns } from './SignIns';

export const metadata = { title: 'Signed-in devices' };

export default yardPage(async ({ db, person, today }) => {
  const rows = await listMySignIns(db, person, clock.now());
  const here = (await signedIn())?.sessionId ?? 0;
  const deputies = may(person, 'sign orders') ? await loadOwnDeputies(db, person, today) : undefined;
  const own = await loadOwnSettings(db, person);
  return (
    <Sheet
      aside={
        <>
          <Mail own={own} email={person.email} />
          {may(person, 'see orders') && <Feed on={own.feed} />}
          {deputies !== undefined && (
            <Deputies deputies={deputies} me={{ id: person.id, number: '', name: person.name }} />
          )}
          <ChangePassword keep={here} />
        </>
      }
    >
      <PlaceTitle title="Signed-in devices" count={person.email} />
      <SignIns rows={rows} own={here} />
      <Shelf facts={<Fact>{counted(rows.length, 'signed-in device')}</Fact>} />
    </Sheet>
  );
});
