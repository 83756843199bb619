'use client';

import { useAct } from '@/ui/useAct';
import { useYard } from '@/ui/YardContext';
import { chooseMail } from '../../acts';

type Props = { readonly own: { readonly copies: boolean; readonly mailReady: boolean }; readonly email: string };

/** What comes to oneself by mail. */
export function Mail({ own, email }: Props) {
  const { may } = useYard();
  const act = useAct(chooseMail, { said: () => 'Kept' });
  const choice = (of: 'copies' | 'mailReady', words: string) => (
    <label className="flex items-center gap-2 py-1">
      <input
        type="checkbox"
        className="box"
        checked={own[of]}
        disabled={act.busy}
        onChange={(e) => void act.run({ of, on: e.target.checked })}
      />
      {words}
    </label>
  );
  return (
    <section className="mb-5" aria-label="Mail to you">
      <h2 className="mb-1 text-[16px]">Mail to {email}</h2>
      {may('send orders') && choice('copies', 'a copy of every order I send')}
      {choice('mailReady', 'when the material of a job I lead is complete')}
    </section>
  );
}
