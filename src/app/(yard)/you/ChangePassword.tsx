'use client';

import { passwordFields } from '@/core/records/person';
import { counted } from '@/core/words';
import { Faults, TextField } from '@/ui/kit/Field';
import { useActForm } from '@/ui/acting/useActForm';
import { acts } from '../../actions';

export function ChangePassword({ keep }: { keep: number }) {
  const form = useActForm({
    read: () => passwordFields,
    start: { old: '', password: '' },
    act: acts.changePassword,
    input: (read) => ({ ...read, keep }),
    said: ({ ended }) =>
      ended === 0 ? 'Password changed' : `Password changed; ${counted(ended, 'other device')} signed out`,
    onDone: (_, restart) => restart(),
  });
  return (
    <form
      noValidate
      className="grid gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        form.save();
      }}
    >
      <h2 className="text-[16px]">Change password</h2>
      <TextField
        label="Current password"
        autoComplete="current-password"
        type="password"
        required
        {...form.text('old')}
      />
      <TextField
        label="New password"
        autoComplete="new-password"
        hint="At least 10 characters. Your other devices are signed out."
        type="password"
        required
        {...form.text('password')}
      />
      <Faults messages={form.refusals.map((r) => r.message)} />
      <button type="submit" disabled={form.busy} className="btn btn-main justify-center">
        Change password
      </button>
    </form>
  );
}
