import { loadLadderPage } from '@/queries/signoff/ladder';
import { Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../server/yardPage';
import { Deputies } from '../_shared/signoff/Deputies';
import { SettingsTitle } from '../_shared/company/SettingsTitle';
import { Ladder } from './Ladder';
import { OwnLimits } from './OwnLimits';
import { Rules } from './Rules';

export const metadata = { title: 'Sign-off' };

export default yardPage(async ({ db, person, today }) => {
  const view = await loadLadderPage(db, person, today);
  return (
    <Sheet
      aside={
        <>
          <OwnLimits people={view.people} />
          <Deputies deputies={view.deputies} everybody />
        </>
      }
    >
      <SettingsTitle title="Sign-off" list="ladder" />
      <Ladder key={`ladder${view.version}`} view={view} />
      <Rules key={`rules${view.version}`} view={view} />
    </Sheet>
  );
});
