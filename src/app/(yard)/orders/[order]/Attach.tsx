'use client';

import { useState } from 'react';
import type { OrderView } from '@/queries/orders/order';
import type { FilesOf } from '@/queries/company/files';
import { Slip } from '@/ui/kit/Slip';
import { SlipFoot } from '@/ui/kit/SlipFoot';
import { useAct } from '@/ui/acting/useAct';
import { useAnswer } from '@/ui/acting/useAnswer';
import { acts } from '../../../actions';
import { AddFile } from '../../_shared/company/AddFile';
import { sizeInWords } from '../../_shared/company/FilesAbout';

/** Which drawings and documents go with an order: its own, and those of its jobs and parts. */
export default function Attach({ view, onClose }: { view: OrderView; onClose: () => void }) {
  const { order } = view;
  const [looked, setLooked] = useState(0);
  const found = useAnswer<readonly FilesOf[]>(`/orders/${order.number}/files`, undefined, looked);
  const [picked, setPicked] = useState<ReadonlySet<number>>(new Set(view.files.map((f) => f.id)));
  const act = useAct(acts.sendWith, { said: () => `Attachments to ${order.number} saved`, onDone: onClose });
  const save = () => void act.run({ orderId: order.id, version: order.version, documentIds: [...picked] });
  const pick = (id: number, on: boolean) =>
    setPicked((now) => new Set(on ? [...now, id] : [...now].filter((n) => n !== id)));
  const some = found?.filter((f) => f.files.length > 0) ?? [];
  return (
    <Slip
      open
      onClose={onClose}
      title={`Attachments to ${order.number}`}
      foot={<SlipFoot words="Save" act={act} onGo={save} />}
    >
      {found === undefined && <p className="text-ink-2">Looking for files…</p>}
      {found !== undefined && some.length === 0 && (
        <p className="mb-3 text-ink-2">No files on this order, its jobs or its items yet.</p>
      )}
      {some.map((of) => (
        <fieldset key={`${of.about} ${of.id}`} className="mb-3">
          <legend className="mb-1 font-semibold">{of.about === 'order' ? 'This order' : of.name}</legend>
          {of.files.map((f) => (
            <label key={f.id} className="flex items-baseline gap-2 border-b border-line-2 py-1.5">
              <input
                type="checkbox"
                className="box self-center"
                checked={picked.has(f.id)}
                onChange={(e) => pick(f.id, e.target.checked)}
              />
              <span className="mono min-w-0 break-all">{f.name}</span>
              <span className="ml-auto text-[12.5px] whitespace-nowrap text-ink-2">
                {f.revision !== '' && `rev. ${f.revision} · `}
                {sizeInWords(f.size)}
              </span>
            </label>
          ))}
        </fieldset>
      ))}
      {found !== undefined && (
        <section aria-label="Upload file" className="border-t border-line pt-3">
          <AddFile
            subjects={found}
            onKept={({ id }) => {
              pick(id, true);
              setLooked((n) => n + 1);
            }}
          />
        </section>
      )}
    </Slip>
  );
}
