'use client';

import { z } from 'zod';
import { codeLines } from '@/core/records/settings';
import { counted } from '@/core/words';
import { AreaField, Faults } from '@/ui/kit/Field';
import { useActForm } from '@/ui/acting/useActForm';
import { acts } from '../../actions';

const fields = z.object({ lines: codeLines });

/** Cost codes as one types or pastes them: one a line. */
export function AddCodes() {
  const form = useActForm({
    read: () => fields,
    start: { lines: '' },
    act: acts.addCostCodes,
    input: (read, once) => ({ once, ...read }),
    said: ({ added }) => `${counted(added, 'cost code')} added`,
    onDone: (_, restart) => restart(),
  });
  return (
    <form
      noValidate
      className="mt-5 grid gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        form.save();
      }}
    >
      <h2 className="text-[16px]">Add cost codes</h2>
      <AreaField label="One per line, e.g. “08 Paint”" rows={4} {...form.text('lines')} />
      <Faults messages={form.refusals.map((r) => r.message)} />
      <button type="submit" className="btn btn-main justify-self-start" disabled={form.busy}>
        Add
      </button>
    </form>
  );
}
