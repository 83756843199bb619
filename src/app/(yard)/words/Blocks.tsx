'use client';

import { useState } from 'react';
import type { WordingView } from '@/queries/company/wording';
import type { Choice } from '@/queries/frame/choices';
import { AreaField, ChoiceField, Faults } from '@/ui/kit/Field';
import { PickField } from '@/ui/kit/PickField';
import { useAct } from '@/ui/acting/useAct';
import { acts } from '../../actions';

const KINDS = { contract: 'contracts', repair: 'repairs', make: 'make jobs' } as const;
type Block = { readonly words: string; readonly supplier: Choice | null; readonly jobKind: keyof typeof KINDS | null };

/** Words that stand on orders below their lines, on all of them or on some. */
export function Blocks({ blocks }: { blocks: WordingView['blocks'] }) {
  const [typed, setTyped] = useState<readonly Block[]>(blocks);
  const act = useAct(acts.saveTextBlocks, { said: () => 'Order wording saved' });
  const put = (at: number, change: Partial<Block>) =>
    setTyped((now) => now.map((b, k) => (k === at ? { ...b, ...change } : b)));
  const save = () =>
    void act.run({
      blocks: typed.map(({ words, supplier, jobKind }) => ({ words, supplierId: supplier?.id ?? null, jobKind })),
    });
  return (
    <>
      <h2 className="mb-1 text-[16px]">Order wording</h2>
      <p className="mb-2 text-ink-2">Printed below the lines.</p>
      {typed.map((b, k) => (
        <fieldset key={k} className="mb-3 border-b border-line-2 pb-3">
          <legend className="sr-only">Words {k + 1}</legend>
          <AreaField
            label={`Text ${k + 1}`}
            hideLabel
            rows={3}
            value={b.words}
            onChange={(e) => put(k, { words: e.target.value })}
          />
          <div className="mt-1 grid grid-cols-2 gap-2">
            <PickField
              kind="supplier"
              label="To"
              placeholder="all suppliers"
              value={b.supplier}
              onPick={(supplier) => put(k, { supplier })}
            />
            <ChoiceField
              label="For"
              value={b.jobKind ?? ''}
              onChange={(e) => put(k, { jobKind: (e.target.value || null) as Block['jobKind'] })}
            >
              <option value="">all jobs</option>
              {Object.entries(KINDS).map(([kind, words]) => (
                <option key={kind} value={kind}>
                  {words}
                </option>
              ))}
            </ChoiceField>
          </div>
          <button type="button" className="step mt-1" onClick={() => setTyped((now) => now.filter((_, n) => n !== k))}>
            Remove
          </button>
        </fieldset>
      ))}
      <Faults messages={act.refusals.map((r) => r.message)} />
      <div className="mt-2 flex gap-3">
        <button
          type="button"
          className="step"
          onClick={() => setTyped((now) => [...now, { words: '', supplier: null, jobKind: null }])}
        >
          + Text
        </button>
        <button type="button" className="btn btn-plain ml-auto" disabled={act.busy} onClick={save}>
          Save
        </button>
      </div>
    </>
  );
}
