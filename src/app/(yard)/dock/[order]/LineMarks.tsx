'use client';

import type { DockLine } from '@/queries/dock/order';
import { useAct } from '@/ui/acting/useAct';
import { acts } from '../../../actions';

/** Whether what comes of this line is inspected, and has to have its certificate; what its item asks for stays. */
export function LineMarks({ line: { id, description, marks } }: { line: DockLine }) {
  const act = useAct(acts.markLine, { said: () => `${description}: marks saved` });
  const mark = (of: 'inspected' | 'certificate', words: string) => (
    <label className="flex min-h-[34px] items-center gap-2 max-phone:min-h-[44px]">
      <input
        type="checkbox"
        className="box"
        checked={marks[of] || marks.byItem[of]}
        disabled={act.busy || marks.byItem[of]}
        onChange={(e) =>
          void act.run({
            lineId: id,
            inspected: marks.inspected,
            certificate: marks.certificate,
            [of]: e.target.checked,
          })
        }
      />
      {words}
      {marks.byItem[of] && <span className="text-[12.5px] text-ink-2">set on the item</span>}
    </label>
  );
  return (
    <div className="col-span-full border-t border-line-2 pt-1">
      {mark('inspected', 'Inspect before release')}
      {mark('certificate', 'Certificate required')}
      {act.refusals[0] !== undefined && (
        <p role="alert" className="field-fault">
          {act.refusals[0].message}
        </p>
      )}
    </div>
  );
}
