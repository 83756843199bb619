'use client';

import { useAct } from '@/ui/useAct';
import { chooseCopies } from '../../acts';

/** Whether what one sends comes to oneself too. */
export function Copies({ on, email }: { on: boolean; email: string }) {
  const act = useAct(chooseCopies, { said: () => 'Kept' });
  return (
    <section className="mb-5" aria-label="Copies">
      <h2 className="mb-1 text-[16px]">Copies</h2>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="box"
          checked={on}
          disabled={act.busy}
          onChange={(e) => void act.run({ copies: e.target.checked })}
        />
        a copy of every order I send, to {email}
      </label>
    </section>
  );
}
