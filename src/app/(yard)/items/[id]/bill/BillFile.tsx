'use client';

import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { toast } from 'sonner';
import { LIMITS } from '@/core/limits';
import { counted } from '@/core/words';
import type { BillFile as Read } from '@/queries/boms';
import { DateField } from '@/ui/kit/DateField';
import { Faults } from '@/ui/kit/Field';
import { ShelfPlain } from '@/ui/kit/Shelf';
import { Slip } from '@/ui/kit/Slip';
import { makeKey } from '@/ui/useAct';
import { useYard } from '@/ui/YardContext';

type Told = Omit<Read, 'taken'>;

/** Bills brought in from a file: what it holds and what is wrong is shown before anything is taken. */
export function BillFile({ itemId }: { readonly itemId: number }) {
  const router = useRouter();
  const { today } = useYard();
  const input = useRef<HTMLInputElement>(null);
  // Sent twice with the same key, a file is brought in once.
  const [file, setFile] = useState<{ readonly file: File; readonly key: string }>();
  const [told, setTold] = useState<Told>();
  const [fault, setFault] = useState<string>();
  const [busy, setBusy] = useState(false);
  const [from, setFrom] = useState<string>(today);
  const close = () => {
    setFile(undefined);
    setTold(undefined);
    setFault(undefined);
  };
  const send = async (chosen: File, more: Record<string, string>) => {
    setBusy(true);
    setFault(undefined);
    try {
      const of = new URLSearchParams({ from, ...more });
      const answer = await fetch(`/items/${itemId}/bill/file?${of}`, { method: 'POST', body: chosen });
      const found = (await answer.json()) as Told & { message?: string };
      if (answer.ok) setTold(found);
      else setFault(found.message ?? 'The file could not be read.');
      return answer.ok;
    } catch {
      setFault('The file could not be handed over. Try again in a moment.');
      return false;
    } finally {
      setBusy(false);
    }
  };
  const choose = (chosen: File | undefined) => {
    if (chosen === undefined) return;
    close();
    setFile({ file: chosen, key: makeKey() });
    if (chosen.size > LIMITS.file) setFault(`${chosen.name} is larger than 8 MB.`);
    else void send(chosen, {});
  };
  const take = async () => {
    if (file === undefined || !(await send(file.file, { once: file.key }))) return;
    toast.success(`${counted(told?.bills.length ?? 0, 'bill')} brought in`);
    close();
    router.refresh();
  };
  const stops = told?.problems.filter((p) => p.weight === 'stop') ?? [];
  return (
    <>
      <input
        ref={input}
        type="file"
        accept=".csv,.txt,.tsv,.xlsx,text/csv"
        aria-label="File of bills"
        className="sr-only"
        tabIndex={-1}
        onChange={(e) => {
          choose(e.target.files?.[0]);
          e.target.value = '';
        }}
      />
      <ShelfPlain disabled={busy} onClick={() => input.current?.click()}>
        {busy ? 'Reading…' : 'Bring in a file'}
      </ShelfPlain>
      {file !== undefined && (
        <Slip
          open
          onClose={close}
          title={file.file.name}
          detail="A row for each part, with its level (0, 1, 2) or with the item that it is a part of. Nothing is taken before you say so."
          foot={
            <div className="grid gap-2">
              <Faults messages={fault === undefined ? [] : [fault]} />
              <button
                type="button"
                className="btn btn-main justify-self-end"
                disabled={busy || told === undefined || stops.length > 0 || told.bills.length === 0}
                onClick={() => void take()}
              >
                Bring in {counted(told?.bills.length ?? 0, 'bill')}
              </button>
            </div>
          }
        >
          <DateField label="They hold from" value={from} onDay={setFrom} />
          {told !== undefined && (
            <>
              <h3 className="mt-4 text-[15px]">What it holds{told.style === undefined ? '' : `, by ${told.style}`}</h3>
              <ul>
                {told.bills.map((b) => (
                  <li key={b.number} className="flex justify-between gap-3 border-b border-line-2 py-1">
                    <span>
                      <b className="mono">{b.number}</b> {b.name}
                    </span>
                    <span className="whitespace-nowrap text-ink-2">
                      {counted(b.lines, 'line')}
                      {b.before > 0 ? `, ${b.before} before` : ', new'}
                    </span>
                  </li>
                ))}
              </ul>
              {told.problemCount > 0 && (
                <h3 className="mt-4 text-[15px]">{counted(told.problemCount, 'row')} to look at</h3>
              )}
              <ul>
                {told.problems.map((p, k) => (
                  <li key={k} className={`border-b border-line-2 py-1 ${p.weight === 'stop' ? 'text-brick' : ''}`}>
                    Row {p.row}: {p.message}
                  </li>
                ))}
              </ul>
            </>
          )}
        </Slip>
      )}
    </>
  );
}
