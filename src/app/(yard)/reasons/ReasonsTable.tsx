'use client';

import { z } from 'zod';
import { REASON_DOES, REASON_NAMES, WHAT_IT_DOES } from '@/core/receiving/reasons';
import { reasonFields } from '@/core/records/settings';
import type { ReasonSetting } from '@/queries/company/settings';
import { ChoiceField, TextField } from '@/ui/kit/Field';
import { useActForm } from '@/ui/acting/useActForm';
import { acts } from '../../actions';
import { SettingSlip } from '../_shared/company/SettingSlip';
import { SettingsTable } from '../_shared/company/SettingsTable';

const fields = z.object({ does: z.enum(REASON_DOES), ...reasonFields.shape });

/** Why deliveries are not as ordered; one opens to be said in other words, or to be offered no more. */
export const ReasonsTable = ({ reasons }: { readonly reasons: readonly ReasonSetting[] }) => (
  <SettingsTable
    label="Reasons"
    className="max-w-[860px]"
    rows={reasons}
    name="Reason"
    columns={[
      { key: 'does', head: 'Type', by: (r) => r.does, cell: (r) => REASON_NAMES[r.does] },
      { key: 'then', head: 'Effect', wide: true, cell: (r) => WHAT_IT_DOES[r.does] },
      { key: 'given', head: 'Used', num: true, by: (r) => r.given, cell: (r) => r.given || '–' },
    ]}
    makes={{ words: 'New reason', fact: 'Offered when receiving and inspecting; you can also add them there' }}
    slip={(reason, onClose) => <ReasonSlip reason={reason} onClose={onClose} />}
  />
);

function ReasonSlip({ reason, onClose }: { readonly reason: ReasonSetting | undefined; readonly onClose: () => void }) {
  const { does, name } = reason ?? { does: REASON_DOES[0], name: '' };
  const form = useActForm({
    read: () => fields,
    start: { does, name },
    act: (input: Parameters<typeof acts.addReason>[0]) =>
      reason === undefined
        ? acts.addReason(input)
        : acts.changeReason({ once: input.once, name: input.name, id: reason.id, version: reason.version }),
    input: (read, once) => ({ once, ...read }),
    said: (_, typed) => `“${typed.name}” saved`,
    onDone: onClose,
  });
  return (
    <SettingSlip
      title={name === '' ? 'New reason' : name}
      form={form}
      row={reason}
      retire={acts.retireReason}
      onClose={onClose}
    >
      <TextField label="Reason" maxLength={60} {...form.text('name')} />
      {reason === undefined ? (
        <ChoiceField label="Type" {...form.text('does')}>
          {REASON_DOES.map((d) => (
            <option key={d} value={d}>
              {REASON_NAMES[d]}
            </option>
          ))}
        </ChoiceField>
      ) : (
        <p className="text-ink-2">
          Effect {REASON_NAMES[does]}. {WHAT_IT_DOES[does]}
        </p>
      )}
    </SettingSlip>
  );
}
