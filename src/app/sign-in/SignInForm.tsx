'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Faults, TextField } from '@/ui/kit/Field';
import { signInHere } from '../actions/signingIn';

export function SignInForm() {
  const router = useRouter();
  const [faults, setFaults] = useState<readonly string[]>([]);
  const [busy, setBusy] = useState(false);
  const [email, setEmail] = useState('');
  const submit = async (form: FormData) => {
    setBusy(true);
    const typed = String(form.get('email'));
    setEmail(typed);
    const { refusals } = await signInHere(typed, String(form.get('password')));
    setBusy(false);
    setFaults(refusals.map((r) => r.message));
    if (refusals.length === 0) router.replace('/');
  };
  return (
    <form action={submit} className="grid gap-3">
      <TextField
        label="Email"
        name="email"
        type="email"
        autoComplete="username"
        required
        key={email}
        defaultValue={email}
      />
      <TextField label="Password" name="password" type="password" autoComplete="current-password" required />
      <Faults messages={faults} />
      <button type="submit" disabled={busy} className="btn btn-main justify-center">
        {busy ? 'Signing in…' : 'Sign in'}
      </button>
    </form>
  );
}
