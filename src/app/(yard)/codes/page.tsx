import { loadThing } from '@/queries/frame/choices';
import { loadCodesPage } from '@/queries/company/settings';
import { SettingsTitle } from '../_shared/company/SettingsTitle';
import { Sheet } from '@/ui/kit/Sheet';
import { place } from '../../server/place';
import { AddCodes } from './AddCodes';
import { CodesTable } from './CodesTable';
import { FreightCode } from './FreightCode';

export const metadata = { title: 'Cost codes' };

export default place(async ({ db, person, today }) => {
  const { codes, freightCodeId } = await loadCodesPage(db, person);
  const freight = await loadThing(db, person, 'costCode', freightCodeId, today);
  return (
    <Sheet
      aside={
        <>
          <FreightCode key={freightCodeId} freight={freight} />
          <AddCodes />
        </>
      }
    >
      <SettingsTitle title="Cost codes" list="cost-codes" />
      <CodesTable codes={codes} />
    </Sheet>
  );
});
