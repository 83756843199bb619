'use client';

import { useAct } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../actions';

type Props = { readonly own: { readonly copies: boolean; readonly mailReady: boolean }; readonly email: string };

/** What comes to oneself by mail. */
export function Mail({ own, email }: Props) {
  const { may } = useYard();
  const act = useAct(acts.chooseMail, { said: () => 'Saved' });
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
    <section className="mb-5" aria-label="Your emails">
      <h2 className="mb-1 text-[16px]">Email address {email}</h2>
      {may('send orders') && choice('copies', 'A copy of each order I send')}
      {choice('mailReady', 'When all material for a job I lead is in')}
    </section>
  );
}
