'use client';

import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { toast } from 'sonner';
import type { DockPaper } from '@/queries/dock/order';
import { makeKey, useAct } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';

type Props = {
  readonly order: string;
  readonly about: 'receipt' | 'certificate';
  readonly aboutId: number;
  readonly papers: readonly DockPaper[];
  /** What the button that adds one says. */
  readonly add: string;
};

/** Photos, delivery notes and certificates of a delivery, and a way to bring in more. */
export function Papers({ order, about, aboutId, papers, add }: Props) {
  const { may } = useYard();
  const router = useRouter();
  const input = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState<string>();
  const out = useAct(acts.removePaper, { said: () => 'Document removed' });
  const keep = async (files: readonly File[]) => {
    setBusy(true);
    setFault(undefined);
    for (const file of files) {
      const query = new URLSearchParams({ once: makeKey(), name: file.name });
      try {
        const answer = await fetch(`/dock/${order}/papers/${about}/${aboutId}?${query}`, {
          method: 'POST',
          body: file,
        });
        const kept = (await answer.json()) as { name?: string; message?: string };
        if (answer.ok) toast.success(`${kept.name} saved`);
        else setFault(kept.message ?? `${file.name} wasn’t saved. Try again in a moment.`);
      } catch {
        setFault(`${file.name} didn’t upload. Try again in a moment.`);
      }
    }
    setBusy(false);
    if (input.current !== null) input.current.value = '';
    router.refresh();
  };
  return (
    <span className="inline-flex flex-wrap items-baseline gap-x-3 text-[12.5px]">
      {papers.map((p) => (
        <span key={p.id} className="inline-flex items-baseline gap-1">
          <a
            href={`/dock/${order}/paper/${p.id}`}
            target="_blank"
            rel="noreferrer"
            className="mono break-all text-copper-text hover:underline"
          >
            {p.name}
          </a>
          {may('receive') && (
            <button
              type="button"
              aria-label={`Remove ${p.name}`}
              className="px-1 text-ink-2 hover:text-brick"
              disabled={out.busy}
              onClick={() => void out.run({ documentId: p.id })}
            >
              ×
            </button>
          )}
        </span>
      ))}
      {may('receive') && (
        <>
          <input
            ref={input}
            type="file"
            multiple
            hidden
            accept=".pdf,.jpg,.jpeg,.png,image/*"
            aria-label={`Files for ${add}`}
            onChange={(e) => void keep([...(e.target.files ?? [])])}
          />
          <button
            type="button"
            className="min-h-[28px] text-ink-2 underline-offset-2 hover:underline max-phone:min-h-[44px]"
            disabled={busy}
            onClick={() => input.current?.click()}
          >
            {busy ? 'Uploading…' : add}
          </button>
        </>
      )}
      {fault !== undefined && (
        <span role="alert" className="text-brick">
          {fault}
        </span>
      )}
    </span>
  );
}
