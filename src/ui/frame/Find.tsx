'use client';

import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { ask } from '../ask';
import { useKey } from '../keys';
import { useYard } from '../YardContext';

type Found = { readonly kind: string; readonly label: string; readonly detail: string; readonly href: string };

const LEAST_WAIT = 120;

/** Finds jobs, orders, items, suppliers and places from anywhere. */
export function FindButton() {
  const [open, setOpen] = useState(false);
  useKey('/', 'Find', () => setOpen(true));
  return (
    <>
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="flex h-[31px] w-[216px] items-center justify-between rounded-lg border border-[#4d7270] bg-rim-2 px-3 text-left text-on-rim-2 max-phone:w-auto max-phone:gap-2"
      >
        <span>
          Find<span className="max-phone:hidden"> part, job, order…</span>
        </span>
        <span aria-hidden className="kbd ml-auto max-phone:hidden">
          /
        </span>
      </button>
      <Dialog.Root open={open} onOpenChange={setOpen}>
        <Dialog.Portal>
          <Dialog.Overlay className="fixed inset-0 z-40 bg-[#17262b]/45" />
          <Dialog.Content
            aria-describedby={undefined}
            className="fixed top-[10vh] left-1/2 z-50 w-[min(580px,calc(100vw-24px))] -translate-x-1/2 overflow-hidden rounded-xl border border-line bg-glaze shadow-2xl"
          >
            <Dialog.Title className="sr-only">Find</Dialog.Title>
            {open && <FindBox close={() => setOpen(false)} />}
          </Dialog.Content>
        </Dialog.Portal>
      </Dialog.Root>
    </>
  );
}

function FindBox({ close }: { close: () => void }) {
  const router = useRouter();
  const { may } = useYard();
  const [words, setWords] = useState('');
  const [found, setFound] = useState<readonly Found[]>([]);
  useEffect(() => {
    const stop = new AbortController();
    const wait = setTimeout(async () => {
      const told = await ask<Found[]>(`/find?words=${encodeURIComponent(words)}`, { signal: stop.signal });
      if (told !== undefined) setFound(told);
    }, LEAST_WAIT);
    return () => {
      clearTimeout(wait);
      stop.abort();
    };
  }, [words]);
  const places: Found[] = [
    may('see orders') && may('see money')
      ? { kind: 'Place', label: 'Outbox', detail: 'what was mailed to suppliers', href: '/outbox' }
      : undefined,
    may('see money') ? { kind: 'Place', label: 'Items', detail: 'what is bought', href: '/items' } : undefined,
    may('open jobs') ? { kind: 'Place', label: 'New job', detail: 'open a job', href: '/jobs/new' } : undefined,
    may('enter invoices')
      ? { kind: 'Place', label: 'New invoice', detail: 'enter a supplier’s bill', href: '/invoices/new' }
      : undefined,
  ].filter((p) => p !== undefined);
  const all = [...found, ...places.filter((p) => p.label.toLowerCase().includes(words.trim().toLowerCase()))];
  return (
    <Command shouldFilter={false} label="Find">
      <Command.Input
        autoFocus
        value={words}
        onValueChange={setWords}
        placeholder="Part, job, order, supplier, invoice…"
        className="h-[50px] w-full border-b border-line bg-transparent px-4 text-[16px] outline-none placeholder:text-ink-2"
      />
      <Command.List className="max-h-[52vh] overflow-y-auto p-1.5">
        <Command.Empty className="px-3 py-4 text-ink-2">
          {words.trim() === '' ? 'Type a number or a few words.' : `Nothing is called “${words}”.`}
        </Command.Empty>
        {all.map((f) => (
          <Command.Item
            key={f.href + f.label}
            value={f.href + f.label}
            className="flex cursor-pointer items-baseline gap-3 rounded-lg px-3 py-2 data-[selected=true]:bg-glaze-2"
            onSelect={() => {
              close();
              router.push(f.href);
            }}
          >
            <span className="w-[62px] shrink-0 text-[12.5px] text-ink-2">{f.kind}</span>
            <span className="mono font-semibold whitespace-nowrap">{f.label}</span>
            <span className="truncate text-ink-2">{f.detail}</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}
