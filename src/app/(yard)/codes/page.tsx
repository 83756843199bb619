import { loadChoice } from '@/queries/frame/choices';
import { loadCodesPage } from '@/queries/company/settings';
import { SettingsTitle } from '../_shared/company/SettingsTitle';
import { Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../server/yardPage';
import { AddCodes } from './AddCodes';
import { CodesTable } from './CodesTable';
import { FreightCode } from './FreightCode';

export const metadata = { title: 'Cost codes' };

export default yardPage(async ({ db, person, today }) => {
  const { codes, freightCodeId } = await loadCodesPage(db, person);
  const freight = await loadChoice(db, person, 'costCode', freightCodeId, today);
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
