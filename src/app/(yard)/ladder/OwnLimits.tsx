'use client';

import { useState } from 'react';
import { z } from 'zod';
import { signOf } from '@/core/money/money';
import { ownLimitField } from '@/core/records/signoff';
import { typedMoney } from '@/core/records/typed';
import type { LadderView } from '@/queries/signoff/ladder';
import { NumberField } from '@/ui/kit/NumberField';
import { useAct } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../actions';

type Row = LadderView['people'][number];

/** Up to what everybody who signs may sign for an order that they wrote on. */
export function OwnLimits({ people }: { readonly people: readonly Row[] }) {
  const { currency } = useYard();
  return (
    <section aria-labelledby="own-limits" className="mb-6">
      <h2 id="own-limits" className="text-[16px]">
        Signing own orders
      </h2>
      <p className="mb-2 text-[12.5px] text-ink-2">
        Limit for signing orders you drafted or changed, {signOf(currency)}.
      </p>
      <ul className="grid gap-1.5">
        {people.map((p) => (
          <Limit key={`${p.id}/${p.version}`} row={p} />
        ))}
      </ul>
    </section>
  );
}

function Limit({ row }: { readonly row: Row }) {
  const { currency } = useYard();
  const field = typedMoney(ownLimitField, currency);
  const saved = z.encode(field, row.ownLimit);
  const [typed, setTyped] = useState(saved);
  const [wrong, setWrong] = useState<string>();
  const act = useAct(acts.saveOwnLimit, { said: () => `${row.name}: saved` });
  const save = () => {
    const read = field.safeParse(typed);
    setWrong(read.success ? undefined : read.error.issues[0]?.message);
    if (read.success && typed !== saved) void act.run({ personId: row.id, version: row.version, ownLimit: read.data });
  };
  return (
    <li className="grid grid-cols-[1fr_110px] items-center gap-2">
      <span>{row.name}</span>
      <NumberField
        label={`Limit of ${row.name}`}
        hideLabel
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={save}
        fault={wrong ?? act.clash?.message ?? act.refusals[0]?.message}
      />
    </li>
  );
}
