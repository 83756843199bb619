'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Choice } from '@/queries/frame/choices';
import { TextField } from '@/ui/kit/Field';
import { PickField } from '@/ui/kit/PickField';
import { Slip } from '@/ui/kit/Slip';
import { SlipFoot } from '@/ui/kit/SlipFoot';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { acts } from '../../../actions';

type Props = {
  readonly number: string;
  readonly signOff: { readonly orderId: number; readonly version: number; readonly signOffId: number };
  readonly onClose: () => void;
};

/** Hands a signature on to somebody else. */
export default function HandOn({ number, signOff, onClose }: Props) {
  const router = useRouter();
  const once = useOnce();
  const [to, setTo] = useState<Choice | null>(null);
  const [reason, setReason] = useState('');
  const act = useAct(acts.reassignSignOff, {
    said: () => `${number} reassigned`,
    onDone: () => router.push('/sign'),
  });
  const go = () => void act.run({ once: once.key(), ...signOff, personId: to?.id ?? 0, reason });
  return (
    <Slip
      open
      onClose={onClose}
      title={`Reassign ${number}`}
      detail="Someone else signs in your place and is told by email."
      foot={<SlipFoot words="Reassign" act={act} onGo={go} />}
    >
      <div className="grid gap-3">
        <PickField kind="person" label="Reassign to" value={to} onPick={setTo} fault={act.faultAt('personId')} />
        <TextField
          label="Reason"
          value={reason}
          maxLength={300}
          onChange={(e) => setReason(e.target.value)}
          fault={act.faultAt('reason')}
        />
      </div>
    </Slip>
  );
}
