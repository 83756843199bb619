'use client';

import Link from '@/ui/kit/Link';
import { useState } from 'react';
import { Faults, TextField } from '@/ui/kit/Field';
import { resetPassword } from '../../actions/signingIn';

export function ResetForm({ token }: { token: string }) {
  const [faults, setFaults] = useState<readonly string[]>([]);
  const [done, setDone] = useState(false);
  const submit = async (form: FormData) => {
    const { refusals } = await resetPassword(token, String(form.get('password')));
    setFaults(refusals.map((r) => r.message));
    setDone(refusals.length === 0);
  };
  if (done)
    return (
      <>
        <p>Password changed. You’ve been signed out everywhere else.</p>
        <Link href="/sign-in" className="btn btn-main mt-4 justify-center">
          Sign in
        </Link>
      </>
    );
  return (
    <form action={submit} className="grid gap-3">
      <TextField
        label="New password"
        name="password"
        type="password"
        autoComplete="new-password"
        required
        hint="At least 10 characters"
      />
      <Faults messages={faults} />
      <button type="submit" className="btn btn-main justify-center">
        Save password
      </button>
    </form>
  );
}
