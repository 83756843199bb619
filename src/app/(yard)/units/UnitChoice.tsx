'use client';

import { useState } from 'react';
import { counted } from '@/core/words';
import type { UnitRow } from '@/queries/company/settings';
import { useKey } from '@/ui/frame/keys';
import { Fact, Shelf, ShelfMain } from '@/ui/kit/Shelf';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { acts } from '../../actions';

/** The units that are offered where one types a unit; all others are still read from files. */
export function UnitChoice({ units }: { readonly units: readonly UnitRow[] }) {
  const before = units.filter((u) => !u.offered).map((u) => u.code);
  const [unused, setUnused] = useState<readonly string[]>(before);
  const { key } = useOnce();
  const act = useAct(acts.chooseUnits, { said: () => 'Units saved' });
  const save = () => void act.run({ once: key(), unused: [...unused] });
  const changed = unused.length !== before.length || unused.some((code) => !before.includes(code));
  useKey('Ctrl+Enter', 'Save units', save, changed && !act.busy);
  return (
    <>
      <ul className="grid max-w-[860px] gap-x-8 sm:grid-cols-2" aria-label="Units">
        {units.map((u) => (
          <li key={u.code} className="border-b border-line-2">
            <label className="flex items-center gap-3 py-1.5">
              <input
                type="checkbox"
                className="box"
                checked={!unused.includes(u.code)}
                onChange={(e) =>
                  setUnused(e.target.checked ? unused.filter((code) => code !== u.code) : [...unused, u.code])
                }
              />
              <span className="flex-1">
                {u.name} {u.short !== '' && u.short !== u.name && <span className="text-ink-2">{u.short}</span>}
              </span>
              <span className="text-[12.5px] text-ink-2">{u.items === 0 ? '' : counted(u.items, 'part')}</span>
              <span className="mono w-[40px] text-[12.5px] text-ink-2">{u.code}</span>
            </label>
          </li>
        ))}
      </ul>
      <Shelf
        fault={act.refusals[0]?.message}
        facts={
          <Fact>
            {counted(units.length - unused.length, 'unit')} in use (codes from UN/ECE Recommendations 20 and 21)
          </Fact>
        }
      >
        <ShelfMain disabled={!changed || act.busy} onClick={save} hint="Ctrl ↵">
          Save units
        </ShelfMain>
      </Shelf>
    </>
  );
}
