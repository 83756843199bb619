'use client';

import type { Choice } from '@/queries/frame/choices';
import { Faults } from '@/ui/kit/Field';
import { PickField } from '@/ui/kit/PickField';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { acts } from '../../actions';

/** Where carriage goes when nothing else is said. */
export function FreightCode({ freight }: { readonly freight: Choice | null }) {
  const once = useOnce();
  const act = useAct(acts.chooseFreightCode, { said: () => 'Saved', onDone: once.renew });
  return (
    <section aria-labelledby="freight">
      <h2 id="freight" className="mb-1 text-[16px]">
        Carriage
      </h2>
      <PickField
        kind="costCode"
        label="Default cost code for carriage"
        value={freight}
        placeholder="spread across the lines"
        onPick={(code) => void act.run({ once: once.key(), costCodeId: code?.id ?? null })}
      />
      <Faults messages={act.refusals.map((r) => r.message)} />
    </section>
  );
}
