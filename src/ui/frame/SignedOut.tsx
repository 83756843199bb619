'use client';

import { useEffect, useState } from 'react';
import { Faults, TextField } from '../kit/Field';
import { Question } from '../kit/Slip';
import { SIGNED_OUT } from '../acting/useAct';

type Props = {
  readonly email: string;
  readonly signIn: (email: string, password: string) => Promise<{ refusals: readonly { message: string }[] }>;
};

/** Signs a person in again where they are, then does what they had asked for. */
export function SignedOut({ email, signIn }: Props) {
  const [retry, setRetry] = useState<{ go: () => void }>();
  const [faults, setFaults] = useState<readonly string[]>([]);
  const [busy, setBusy] = useState(false);
  useEffect(() => {
    const onSignedOut = (event: Event) => setRetry({ go: (event as CustomEvent<() => void>).detail });
    window.addEventListener(SIGNED_OUT, onSignedOut);
    return () => window.removeEventListener(SIGNED_OUT, onSignedOut);
  }, []);
  const submit = async (form: FormData) => {
    setBusy(true);
    const { refusals } = await signIn(String(form.get('email')), String(form.get('password')));
    setBusy(false);
    setFaults(refusals.map((r) => r.message));
    if (refusals.length > 0) return;
    setRetry(undefined);
    retry?.go();
  };
  return (
    <Question open={retry !== undefined} onClose={() => setRetry(undefined)} title="You were signed out">
      <p className="mb-4 text-ink-2">Nothing you typed is lost. Sign in to carry on.</p>
      <form action={submit} className="grid gap-3">
        <TextField label="Email" name="email" type="email" autoComplete="username" defaultValue={email} required />
        <TextField
          label="Password"
          name="password"
          type="password"
          autoComplete="current-password"
          required
          autoFocus
        />
        <Faults messages={faults} />
        <button type="submit" disabled={busy} className="btn btn-main justify-self-end">
          Sign in
        </button>
      </form>
    </Question>
  );
}
