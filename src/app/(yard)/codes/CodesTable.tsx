'use client';

import { costCodeFields } from '@/core/records/settings';
import type { CodeRow } from '@/queries/company/settings';
import { TextField } from '@/ui/kit/Field';
import { useActForm } from '@/ui/acting/useActForm';
import { acts } from '../../actions';
import { SettingSlip } from '../_shared/company/SettingSlip';
import { SettingsTable } from '../_shared/company/SettingsTable';

/** The headings of the budgets; one opens to be changed, or to be offered no more. */
export const CodesTable = ({ codes }: { readonly codes: readonly CodeRow[] }) => (
  <SettingsTable
    label="Cost codes"
    className="max-w-[640px]"
    rows={codes}
    before={[
      {
        key: 'code',
        head: 'Cost code',
        by: (c) => c.code,
        cell: (c) => <span className="mono font-semibold">{c.code}</span>,
      },
    ]}
    name="Name"
    columns={[{ key: 'jobs', head: 'Jobs', num: true, by: (c) => c.jobs, cell: (c) => c.jobs || '–' }]}
    slip={(code, onClose) => code && <CodeSlip code={code} onClose={onClose} />}
  />
);

function CodeSlip({ code: row, onClose }: { readonly code: CodeRow; readonly onClose: () => void }) {
  const { id, version, code, name } = row;
  const form = useActForm({
    read: () => costCodeFields,
    start: { code, name },
    act: acts.changeCostCode,
    input: (read, once) => ({ once, id, version, ...read }),
    said: (_, typed) => `Cost code ${typed.code} saved`,
    onDone: onClose,
  });
  return (
    <SettingSlip title={`Cost code ${code}`} form={form} row={row} retire={acts.retireCostCode} onClose={onClose}>
      <TextField label="Number" inputClass="mono" maxLength={8} {...form.text('code')} />
      <TextField label="Name" {...form.text('name')} />
    </SettingSlip>
  );
}
