'use client';

import { useEffect, useState } from 'react';
import { formatQuantity, parseQuantity } from '@/core/quantity/quantity';
import type { Surplus } from '@/core/needs/surplus';
import { ungrouped } from '@/core/locale/locale';
import { counted } from '@/core/words';
import type { RootChanges } from '@/queries/buying/planAhead';
import { ask, asJson } from '@/ui/acting/ask';
import { Faults } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { Slip } from '@/ui/kit/Slip';
import { useKey } from '@/ui/frame/keys';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { acts } from '../../../../actions';
import { ChangeTold, SurplusField } from '../changes';
import type { PlanView } from '@/queries/buying/plan';

type Props = {
  readonly job: { readonly id: number; readonly number: string };
  readonly version: number;
  readonly root: PlanView['roots'][number];
  readonly onClose: () => void;
};

const WAIT = 250;

/** How the plan of what is made comes out now: by its BOM, by the job's dates, and by how many are made. */
export function ChangesSlip({ job, version, root, onClose }: Props) {
  const [typed, setTyped] = useState(ungrouped(formatQuantity(root.quantity)));
  const [found, setFound] = useState<RootChanges>();
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [surplus, setSurplus] = useState<Surplus | ''>('');
  const once = useOnce();
  const many = parseQuantity(typed);
  const asked = many.ok ? many.value : undefined;
  useEffect(() => {
    if (asked === undefined) return undefined;
    const stop = new AbortController();
    const wait = setTimeout(() => {
      const body = JSON.stringify({ jobId: job.id, of: { rootId: root.lineId, quantity: asked } });
      void ask<RootChanges[]>(`/jobs/${job.number}/plan/changes`, asJson(body, stop.signal)).then((answer) =>
        setFound(answer?.find((r) => r.rootId === root.lineId)),
      );
    }, WAIT);
    return () => {
      clearTimeout(wait);
      stop.abort();
    };
  }, [asked, job, root.lineId]);
  const act = useAct(acts.acceptPlanChanges, { said: () => `Plan of ${root.number} updated`, onDone: onClose });
  const changes = found?.quantity === asked ? (found?.changes ?? []) : [];
  const accepted = changes.filter((c) => !left.has(c.key)).map((c) => c.key);
  const mayGo = accepted.length > 0 && asked !== undefined && !act.busy;
  const go = () => {
    if (asked === undefined) return;
    const more = surplus === '' ? {} : { surplus };
    void act.run({
      once: once.key(),
      ...{ jobId: job.id, version, rootId: root.lineId, quantity: asked, accepted, codeId: null },
      ...more,
    });
  };
  useKey('Ctrl+Enter', 'Apply changes', go, mayGo);
  const turn = (key: string) => {
    const next = new Set(left);
    if (!next.delete(key)) next.add(key);
    setLeft(next);
  };
  const asksSurplus = act.refusals.some((r) => r.field?.endsWith('surplus')) || surplus !== '';
  return (
    <Slip
      open
      onClose={onClose}
      title={`Changes for ${root.number}`}
      detail="Compares the plan with the current BOM, the job’s dates and the quantity to make. Nothing changes until you apply it."
      foot={
        <div className="grid gap-2">
          <Faults messages={act.clash ? [act.clash.message] : act.refusals.map((r) => r.message)} />
          <button type="button" className="btn btn-main justify-self-end" disabled={!mayGo} onClick={go}>
            Apply {counted(accepted.length, 'change')}{' '}
            <span className="kbd" aria-hidden>
              Ctrl ↵
            </span>
          </button>
        </div>
      }
    >
      <NumberField
        label="Quantity to make"
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        fault={many.ok ? found?.fault : many.refusals[0]?.message}
      />
      {asksSurplus && <SurplusField className="mt-3" value={surplus} onChange={setSurplus} />}
      {changes.length === 0 ? (
        <p className="mt-4 text-ink-2">The plan is up to date.</p>
      ) : (
        <ul className="mt-4">
          {changes.map((c) => (
            <li key={c.key} className="flex items-start gap-2 border-b border-line-2 py-1.5">
              <label className="flex flex-1 gap-2">
                <input
                  type="checkbox"
                  className="mt-[3px] accent-[var(--copper)]"
                  checked={!left.has(c.key)}
                  onChange={() => turn(c.key)}
                />
                <ChangeTold {...c} />
              </label>
            </li>
          ))}
        </ul>
      )}
    </Slip>
  );
}
