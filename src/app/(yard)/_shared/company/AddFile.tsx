'use client';

import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { toast } from 'sonner';
import { FILE_ENDS } from '@/core/files/kinds';
import type { FileSubject } from '@/queries/company/files';
import { ChoiceField, Faults, TextField } from '@/ui/kit/Field';
import { makeKey } from '@/ui/acting/useAct';

type Props = {
  /** What the file can be about; one alone is not asked for. */
  readonly subjects: readonly FileSubject[];
  readonly onKept?: (file: { readonly id: number; readonly name: string }) => void;
};

/** Brings in drawings and documents; each says at once what is wrong with it. */
export function AddFile({ subjects, onKept }: Props) {
  const router = useRouter();
  const input = useRef<HTMLInputElement>(null);
  const [revision, setRevision] = useState('');
  const [at, setAt] = useState(0);
  const [busy, setBusy] = useState<string>();
  const [faults, setFaults] = useState<readonly string[]>([]);
  const subject = subjects[at];
  const keep = async (files: readonly File[]) => {
    if (subject === undefined) return;
    const told: string[] = [];
    for (const file of files) {
      setBusy(file.name);
      try {
        const query = new URLSearchParams({ once: makeKey(), name: file.name, revision });
        const answer = await fetch(`/files/${subject.about}/${subject.id}?${query}`, { method: 'POST', body: file });
        const kept = (await answer.json()) as { id: number; name: string; message?: string };
        if (answer.ok) {
          toast.success(`${kept.name} saved with ${subject.name}`);
          onKept?.(kept);
        } else told.push(kept.message ?? `${file.name} wasn’t saved. Try again in a moment.`);
      } catch {
        told.push(`${file.name} didn’t upload. Try again in a moment.`);
      }
    }
    setBusy(undefined);
    setFaults(told);
    if (input.current !== null) input.current.value = '';
    router.refresh();
  };
  return (
    <div className="grid gap-2">
      <div className="flex flex-wrap items-end gap-3">
        {subjects.length > 1 && (
          <ChoiceField
            label="File is for"
            className="min-w-[160px] flex-1"
            value={at}
            onChange={(e) => setAt(Number(e.target.value))}
          >
            {subjects.map((s, k) => (
              <option key={`${s.about} ${s.id}`} value={k}>
                {s.about === 'order' ? `this order, ${s.name}` : s.name}
              </option>
            ))}
          </ChoiceField>
        )}
        <TextField
          label="Revision"
          className="w-[90px]"
          inputClass="mono"
          placeholder="C"
          maxLength={20}
          value={revision}
          onChange={(e) => setRevision(e.target.value)}
        />
        <input
          ref={input}
          type="file"
          multiple
          hidden
          accept={FILE_ENDS.join(',')}
          aria-label="Files"
          onChange={(e) => void keep([...(e.target.files ?? [])])}
        />
        <button
          type="button"
          className="btn btn-plain"
          disabled={busy !== undefined}
          onClick={() => input.current?.click()}
        >
          {busy === undefined ? 'Choose files' : `Uploading ${busy}…`}
        </button>
      </div>
      <Faults messages={faults} />
    </div>
  );
}
