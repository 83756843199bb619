'use client';

import { Command } from 'cmdk';
import { useRouter } from 'next/navigation';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { wordsOf } from '@/core/find/words';
import type { Found } from '@/queries/frame/find';
import type { FindKind } from '@/store/find';
import { ask } from '../acting/ask';
import { useYard } from './YardContext';
import { menuFor } from './menu';

type Shown = {
  readonly kind: string;
  /** Called by a number. */
  readonly numbered: boolean;
  readonly label: string;
  readonly detail: string;
  readonly href: string;
};

const keyOf = (f: Shown) => `${f.href} ${f.label}`;

const NUMBERED: readonly FindKind[] = ['job', 'quote', 'item', 'order', 'receipt', 'invoice', 'costCode', 'lot'];

const KIND_NAMES: Readonly<Record<FindKind, string>> = {
  job: 'Job',
  quote: 'Quote',
  need: 'Buy-list line',
  item: 'Item',
  supplier: 'Supplier',
  order: 'Order',
  receipt: 'Receipt',
  invoice: 'Invoice',
  person: 'Person',
  customer: 'Customer',
  costCode: 'Cost code',
  place: 'Location',
  lot: 'Serial or lot no.',
};

/** Every word typed begins a word of the place. */
const placesCalled = (typed: string, may: Parameters<typeof menuFor>[0]): Shown[] =>
  menuFor(may)
    .filter(({ name, words }) => {
      const own = wordsOf(`${name} ${words}`);
      return wordsOf(typed).every((w) => own.some((o) => o.startsWith(w)));
    })
    .map(({ name, words, href }) => ({ kind: 'Go to', numbered: false, label: name, detail: words, href }));

/** Who types the beginning of a place's own name wants to go there, whatever else is called so. */
const isMeant = ({ label }: Shown, typed: string): boolean =>
  typed.trim().length >= 3 && label.toLowerCase().startsWith(typed.trim().toLowerCase());

const LEAST_WAIT = 80;

/** What is typed, and what is called so. */
export default function FindBox({ close }: { close: () => void }) {
  const router = useRouter();
  const { may } = useYard();
  const [words, setWords] = useState('');
  const [answer, setAnswer] = useState<{ for?: string; found: readonly Found[] }>({ found: [] });
  const ready = answer.for === words;
  /** Enter came before the answer: what it finds first is opened as soon as it is there. */
  const wanted = useRef(false);
  const [at, setAt] = useState('');
  const go = (href: string) => {
    close();
    router.push(href);
  };
  const shownFor = (found: readonly Found[]): Shown[] => {
    const places = words.trim() === '' ? [] : placesCalled(words, may);
    return [
      ...places.filter((p) => isMeant(p, words)),
      ...found.map((f) => ({ ...f, kind: KIND_NAMES[f.kind], numbered: NUMBERED.includes(f.kind) })),
      ...places.filter((p) => !isMeant(p, words)),
    ];
  };
  const arrived = useEffectEvent((found: readonly Found[]) => {
    wanted.current = false;
    const [first] = shownFor(found);
    if (first !== undefined) go(first.href);
  });
  useEffect(() => {
    const stop = new AbortController();
    const wait = setTimeout(async () => {
      const told = await ask<Found[]>(`/find?words=${encodeURIComponent(words)}`, { signal: stop.signal });
      if (told !== undefined) setAnswer({ for: words, found: told });
    }, LEAST_WAIT);
    return () => {
      clearTimeout(wait);
      stop.abort();
    };
  }, [words]);
  // Looked at once it is drawn: Enter that came before it was there waits for it.
  useEffect(() => {
    if (wanted.current && answer.for === words) arrived(answer.found);
  }, [answer, words]);
  const all = shownFor(answer.found);
  const first = all[0] === undefined ? '' : keyOf(all[0]);
  return (
    <Command
      shouldFilter={false}
      label="Find"
      vimBindings={false}
      value={all.some((f) => keyOf(f) === at) ? at : first}
      onValueChange={setAt}
    >
      <Command.Input
        autoFocus
        value={words}
        onKeyDown={(e) => {
          if (e.key !== 'Enter' || ready) return;
          e.preventDefault();
          wanted.current = true;
        }}
        onValueChange={(typed) => {
          setAt('');
          setWords(typed);
        }}
        placeholder="Item, job, order, supplier, invoice…"
        className="h-[50px] w-full border-b border-line bg-transparent px-4 text-[16px] outline-none placeholder:text-ink-2"
      />
      <Command.List className="max-h-[52vh] overflow-y-auto p-1.5">
        {words.trim() === '' && all.length > 0 && <p className="px-3 pt-1 text-[12.5px] text-ink-2">Recently opened</p>}
        <Command.Empty className="px-3 py-4 text-ink-2">
          {!ready ? '…' : words.trim() === '' ? 'Type a number or name.' : `No match for “${words}”.`}
        </Command.Empty>
        {all.map((f) => (
          <Command.Item
            key={keyOf(f)}
            value={keyOf(f)}
            className="flex cursor-pointer items-baseline gap-3 rounded-lg px-3 py-2 data-[selected=true]:bg-glaze-2"
            onSelect={() => go(f.href)}
          >
            <span className="w-[62px] shrink-0 text-[12.5px] text-ink-2">{f.kind}</span>
            <span className={`truncate font-semibold ${f.numbered ? 'mono shrink-0' : ''}`}>{f.label}</span>
            <span className="truncate text-ink-2">{f.detail}</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}
