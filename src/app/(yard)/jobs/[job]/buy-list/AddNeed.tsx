'use client';

import { useState } from 'react';
import { needForm, type NeedText } from '@/core/records/need';
import { counted } from '@/core/words';
import { useKey } from '@/ui/frame/keys';
import { Faults } from '@/ui/kit/Field';
import { Slip } from '@/ui/kit/Slip';
import { useActForm } from '@/ui/acting/useActForm';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../../actions';
import { NeedFields } from '../../../_shared/buying/NeedFields';

const FRESH: NeedText = {
  description: '',
  quantity: '',
  unit: 'C62',
  price: '',
  item: null,
  costCodeId: null,
  supplierId: null,
  neededOn: '',
  surplus: '',
};

/** Lines are put on the list one after the other: Ctrl+Enter adds one and begins the next. */
export default function AddNeed({ jobId, onClose }: { jobId: number; onClose: () => void }) {
  const { currency } = useYard();
  const [added, setAdded] = useState(0);
  const form = useActForm({
    read: () => needForm(currency),
    start: FRESH,
    keep: `lines for job ${jobId}`,
    act: acts.addNeed,
    input: ({ item, surplus: _, ...read }, once) => ({ once, jobId, itemId: item?.id ?? null, ...read }),
    onDone: (_, restart) => {
      setAdded((n) => n + 1);
      const { costCodeId, supplierId, neededOn } = form.typed;
      restart({ ...FRESH, costCodeId, supplierId, neededOn });
    },
  });
  useKey('Ctrl+Enter', 'Add and start another', form.save, !form.busy);
  return (
    <Slip
      open
      onClose={onClose}
      title="Add buy-list lines"
      foot={
        <div className="grid gap-2">
          <Faults messages={form.refusals.map((r) => r.message)} />
          <div className="flex items-center justify-end gap-3">
            <span role="status" className="mr-auto text-ink-2">
              {added > 0 && `${counted(added, 'line')} added`}
            </span>
            <button type="button" disabled={form.busy} onClick={form.save} className="btn btn-main">
              Add line{' '}
              <span className="kbd" aria-hidden>
                Ctrl ↵
              </span>
            </button>
          </div>
        </div>
      }
    >
      <NeedFields key={added} form={form} open />
    </Slip>
  );
}
