'use client';

import { useState } from 'react';
import { costCodeFields } from '@/core/records/settings';
import type { CodeRow } from '@/queries/company/settings';
import { TextField } from '@/ui/kit/Field';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { useActForm } from '@/ui/acting/useActForm';
import { acts } from '../../actions';
import { nameColumn, SettingSlip } from '../_shared/company/SettingSlip';

/** The headings of the budgets; one opens to be changed, or to be offered no more. */
export function CodesTable({ codes }: { readonly codes: readonly CodeRow[] }) {
  const [open, setOpen] = useState<CodeRow>();
  const columns: Column<CodeRow>[] = [
    {
      key: 'code',
      head: 'Cost code',
      by: (c) => c.code,
      cell: (c) => <span className="mono font-semibold">{c.code}</span>,
    },
    nameColumn<CodeRow>('Name', setOpen),
    { key: 'jobs', head: 'Jobs', num: true, by: (c) => c.jobs, cell: (c) => (c.jobs === 0 ? '–' : c.jobs) },
  ];
  return (
    <>
      <LedgerTable
        label="Cost codes"
        className="max-w-[640px]"
        rows={codes}
        columns={columns}
        keyOf={(c) => c.id}
        onOpen={setOpen}
      />
      {open !== undefined && <CodeSlip code={open} onClose={() => setOpen(undefined)} />}
    </>
  );
}

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
