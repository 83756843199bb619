'use client';

import { useState } from 'react';
import type { Role } from '@/core/people/rights';
import type { Frame } from '@/queries/frame/frame';
import { Band } from '@/ui/frame/Band';
import { KeysList } from '@/ui/frame/KeysList';
import { Rail } from '@/ui/frame/Rail';
import { SignedOut } from '@/ui/frame/SignedOut';
import { useAct } from '@/ui/acting/useAct';
import { acts } from '../../../actions';
import { signInHere, signOut } from '../../../actions/signingIn';

type Props = {
  readonly frame: Frame;
  readonly person: {
    readonly name: string;
    readonly email: string;
    readonly roles: readonly Role[];
    readonly theme: 'day' | 'evening';
  };
};

/** What stands above every sheet: the band and the tab rail. */
export function FrameTop({ frame, person }: Props) {
  const [keys, showKeys] = useState(false);
  const theme = useAct(acts.chooseTheme);
  const close = useAct(acts.closeOnRail);
  const move = useAct(acts.moveOnRail);
  return (
    <>
      <Band
        counts={frame.counts}
        person={person}
        onKeys={() => showKeys(true)}
        onSignOut={() => void signOut()}
        onTheme={() => void theme.run({ theme: person.theme === 'evening' ? 'day' : 'evening' })}
      />
      <Rail
        tabs={frame.rail}
        onClose={(jobId) => void close.run({ jobId })}
        onMove={(jobIds) => void move.run({ jobIds })}
      />
      <KeysList open={keys} setOpen={showKeys} />
      <SignedOut email={person.email} signIn={signInHere} />
    </>
  );
}
