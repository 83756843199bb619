'use client';

import { useRouter } from 'next/navigation';
import { useRef, useState, type ReactNode } from 'react';
import { toast } from 'sonner';
import { LIMITS } from '@/core/limits';
import { makeKey } from '../acting/useAct';
import { useYard } from '../frame/YardContext';
import { DateField } from './DateField';
import { Faults } from './Field';
import { ShelfPlain } from './Shelf';
import { Slip } from './Slip';

type Props<T> = {
  /** Where the sheet is handed over to. */
  readonly address: string;
  /** What the sheet is: “File of BOMs”. */
  readonly label: string;
  readonly words: string;
  readonly detail: string;
  /** The label of the day from which what it says holds, where it does from one. */
  readonly dayLabel?: string;
  /** What is taken, in words; nothing where there is nothing to take. */
  readonly takes: (told: T) => string | undefined;
  /** What is said once the server took it; nothing where the page goes on with it. */
  readonly said?: (told: T) => string;
  readonly onTake?: (told: T) => void;
  readonly children: (told: T) => ReactNode;
};

/** A sheet brought in: what it holds and what is wrong with it is shown before anything is taken. */
export function FileSlip<T>({ address, label, words, detail, dayLabel, takes, said, onTake, children }: Props<T>) {
  const router = useRouter();
  const { today } = useYard();
  const input = useRef<HTMLInputElement>(null);
  // Sent twice with the same key, a sheet is taken once.
  const [file, setFile] = useState<{ readonly file: File; readonly key: string }>();
  const [told, setTold] = useState<T>();
  const [fault, setFault] = useState<string>();
  const [busy, setBusy] = useState(false);
  const [from, setFrom] = useState<string>(today);
  const close = () => {
    setFile(undefined);
    setTold(undefined);
    setFault(undefined);
  };
  const send = async (chosen: File, more: Record<string, string>): Promise<T | undefined> => {
    setBusy(true);
    setFault(undefined);
    try {
      const answer = await fetch(`${address}?${new URLSearchParams({ from, ...more })}`, {
        method: 'POST',
        body: chosen,
      });
      const found = (await answer.json()) as T & { message?: string };
      if (!answer.ok) setFault(found.message ?? 'The file couldn’t be read. Save it as CSV or XLSX and try again.');
      else return found;
    } catch {
      setFault('The file didn’t upload. Try again in a moment.');
    } finally {
      setBusy(false);
    }
    return undefined;
  };
  const choose = async (chosen: File) => {
    close();
    setFile({ file: chosen, key: makeKey() });
    if (chosen.size > LIMITS.file)
      setFault(`${chosen.name} is over 8 MB. Split it and import the parts one after the other.`);
    else setTold(await send(chosen, {}));
  };
  const begin = async (day: string) => {
    setFrom(day);
    if (file !== undefined) setTold(await send(file.file, { from: day }));
  };
  const take = async () => {
    if (onTake !== undefined && told !== undefined) {
      onTake(told);
      close();
      return;
    }
    const taken = file && (await send(file.file, { once: file.key }));
    if (taken === undefined) return;
    toast.success(said?.(taken));
    close();
    router.refresh();
  };
  const will = told === undefined ? undefined : takes(told);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept=".csv,.txt,.tsv,.xlsx,text/csv"
        aria-label={label}
        className="sr-only"
        tabIndex={-1}
        onChange={(e) => {
          const [chosen] = e.target.files ?? [];
          if (chosen !== undefined) void choose(chosen);
          e.target.value = '';
        }}
      />
      <ShelfPlain disabled={busy} onClick={() => input.current?.click()}>
        {busy ? 'Reading…' : words}
      </ShelfPlain>
      {file !== undefined && (
        <Slip
          open
          onClose={close}
          title={file.file.name}
          detail={`${detail} Nothing is saved until you confirm.`}
          foot={
            <div className="grid gap-2">
              <Faults messages={fault === undefined ? [] : [fault]} />
              <button
                type="button"
                className="btn btn-main justify-self-end"
                disabled={busy || will === undefined}
                onClick={() => void take()}
              >
                {will ?? (busy ? 'Reading…' : 'Nothing to import')}
              </button>
            </div>
          }
        >
          {dayLabel !== undefined && <DateField label={dayLabel} value={from} onDay={(day) => void begin(day)} />}
          {told !== undefined && children(told)}
        </Slip>
      )}
    </>
  );
}

/** Rows of a sheet that need a look, or are left out. */
export function RowsTold({
  title,
  rows,
}: {
  title: string;
  rows: readonly { readonly row: number; readonly message: string; readonly weight?: 'stop' | 'care' }[];
}) {
  if (rows.length === 0) return null;
  return (
    <>
      <h3 className="mt-4 text-[15px]">{title}</h3>
      <ul>
        {rows.map((p, k) => (
          <li key={k} className={`border-b border-line-2 py-1 ${p.weight === 'stop' ? 'text-brick' : ''}`}>
            Row {p.row}: {p.message}
          </li>
        ))}
      </ul>
    </>
  );
}
