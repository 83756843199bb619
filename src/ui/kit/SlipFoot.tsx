'use client';

import { useKey } from '../frame/keys';
import { Faults } from './Field';

type Props = {
  /** What the button does, in words. */
  readonly words: string;
  readonly act: {
    readonly busy: boolean;
    readonly refusals: readonly { readonly message: string }[];
    readonly clash?: { readonly message: string } | undefined;
  };
  readonly onGo: () => void;
};

/** The foot of a slip that does one thing: what stands against it, and its button, by key too. */
export function SlipFoot({ words, act, onGo }: Props) {
  useKey('Ctrl+Enter', words, onGo, !act.busy);
  return (
    <div className="grid gap-2">
      <Faults messages={act.clash ? [act.clash.message] : act.refusals.map((r) => r.message)} />
      <button type="button" disabled={act.busy} onClick={onGo} className="btn btn-main justify-self-end">
        {words}{' '}
        <span className="kbd" aria-hidden>
          Ctrl ↵
        </span>
      </button>
    </div>
  );
}
