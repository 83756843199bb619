'use client';

import { Command } from 'cmdk';
import { Popover } from 'radix-ui';
import { useEffect, useEffectEvent, useId, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import type { ItemChoice, Choice, ChoiceKind } from '@/queries/frame/choices';
import { ask, tell } from '../acting/ask';
import { useWorkedOn } from '../jobs/AssetContext';
import { useYard, type Yard } from '../frame/YardContext';
import { Framed, described, type Frame } from './Field';

/** Things that the page knows by itself, for what is typed. */
export type Known = (typed: string, yard: Pick<Yard, 'unitsUnused'>) => readonly Choice[];
type Source = ChoiceKind | Known;

/** What a picked thing is, where its kind tells more than its name. */
type ThingOf<K extends Source> = K extends 'item' ? ItemChoice : Choice;

/** @example labelOf({ number: '02', name: 'Machinery' }) // '02 Machinery' */
export const labelOf = (thing: Pick<Choice, 'number' | 'name'>): string =>
  [thing.number, thing.name].filter(Boolean).join(' ');

const WAIT = 60;
const MAKE = 'make';

type Props<K extends Source> = Frame & {
  readonly kind: K;
  readonly value: Pick<Choice, 'id' | 'number' | 'name'> | null;
  readonly onPick: (thing: ThingOf<K> | null) => void;
  /** Words that stand for nothing of the company may be typed as well; they are told as they are typed. */
  readonly free?: { readonly text: string; readonly onText: (text: string) => void };
  /** Makes a thing that is not there yet, called as typed. */
  readonly make?: { readonly words: string; readonly onMake: (typed: string) => void } | undefined;
  /** Choices beside what is found. */
  readonly also?: readonly Choice[] | undefined;
  readonly placeholder?: string;
  readonly disabled?: boolean | undefined;
  readonly required?: boolean;
  readonly autoFocus?: boolean;
  /** In a cell of a sheet it begins with what was typed there, its list open. */
  readonly inCell?: { readonly begin: string; readonly onLooking: () => void; readonly onClose: () => void };
};

/**
 * A thing of the company, picked as one types: Enter takes the first, and so does leaving; arrows reach another, Escape
 * puts back. What is typed freely is taken for a thing by Enter, or by leaving when it is the thing's number.
 */
export function PickField<K extends Source>({ kind, value, onPick, free, make, also, ...field }: Props<K>) {
  const { label, fault, hint, hideLabel, className, placeholder, disabled, required, autoFocus, inCell } = field;
  const id = useId();
  const workedOn = useWorkedOn();
  const shown = free?.text ?? (value === null ? '' : labelOf(value));
  const [typed, setTyped] = useState(inCell?.begin);
  const [at, setAt] = useState('');
  /** Enter came before the answer: what is found first is taken as soon as it is there. */
  const wanted = useRef(false);
  /** The field was left: words that were typed freely are taken for a thing only when they are its number. */
  const left = useRef(false);
  const input = useRef<HTMLInputElement>(null);
  const open = typed !== undefined;
  const close = () => {
    setTyped(undefined);
    wanted.current = false;
    left.current = false;
    inCell?.onClose();
  };
  /** What is found first is taken when it is there. */
  const takeFirst = () => {
    wanted.current = true;
    inCell?.onLooking();
  };
  const take = (thing: Choice) => {
    close();
    onPick(thing as ThingOf<K>);
    if (typeof kind === 'string' && thing.id > 0) void tell('/used', { kind, id: thing.id });
  };
  const isMeant = (thing: Choice) => free === undefined || thing.number.toLowerCase() === typed?.trim().toLowerCase();
  const list = useThings(kind, typed, also, ([first]) => {
    if (first !== undefined && wanted.current && (!left.current || isMeant(first))) return take(first);
    if (wanted.current && document.activeElement !== input.current) return close();
    wanted.current = false;
    setAt(first === undefined ? (make === undefined || free !== undefined ? '' : MAKE) : String(first.id));
  });
  const choose = (key: string) => {
    const thing = list.things.find((t) => String(t.id) === key);
    if (thing !== undefined) return take(thing);
    close();
    if (key === MAKE) make?.onMake((typed ?? '').trim());
  };
  const type = (text: string) => {
    setTyped(text);
    free?.onText(text);
    if (text.trim() === '' && free === undefined) onPick(null);
  };
  const makes = make !== undefined && list.ready && (typed ?? '').trim() !== '';
  const keys = [...list.things.map((t) => String(t.id)), ...(makes ? [MAKE] : [])];
  const step = (by: 1 | -1) => setAt(keys[(keys.indexOf(at) + by + keys.length) % keys.length] ?? '');
  const leave = () => {
    // Enter was pressed: what is found first is taken, left or not.
    if (wanted.current) return;
    if (!open || typed?.trim() === '' || at === MAKE) return close();
    left.current = true;
    const [first] = list.things;
    if (!list.ready) takeFirst();
    else if (first === undefined || isMeant(first)) choose(at);
    else close();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const arrow = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : undefined;
    if (arrow !== undefined) {
      event.preventDefault();
      return open ? step(arrow) : setTyped(free?.text ?? '');
    }
    if (!open) return;
    if (event.key === 'Escape') {
      event.preventDefault();
      close();
    }
    if (event.key === 'Enter') {
      event.preventDefault();
      if (list.ready) choose(at);
      else takeFirst();
    }
  };
  const choices = useRef<HTMLDivElement>(null);
  useEffect(() => {
    // The list and its choices have ids of cmdk's own.
    const active = choices.current?.querySelector('[aria-selected="true"]');
    for (const [name, told] of [
      ['aria-controls', choices.current?.id],
      ['aria-activedescendant', active?.id],
    ] as const)
      if (told === undefined) input.current?.removeAttribute(name);
      else input.current?.setAttribute(name, told);
  });
  return (
    <Framed id={id} label={label} fault={fault} hint={hint} hideLabel={hideLabel} className={className}>
      <Popover.Root open={open} onOpenChange={(now) => !now && !wanted.current && close()}>
        <Popover.Anchor asChild>
          <input
            ref={input}
            id={id}
            className={`field ${field.small === true ? 'field-small' : ''} ${inCell === undefined ? '' : 'field-cell'}`}
            role="combobox"
            autoComplete="off"
            spellCheck={false}
            aria-autocomplete="list"
            aria-controls=""
            aria-expanded={open}
            value={typed ?? shown}
            onChange={(e) => type(e.target.value)}
            onKeyDown={onKeyDown}
            onClick={() => !open && setTyped(free?.text ?? '')}
            onFocus={(e) => !open && e.target.select()}
            onBlur={leave}
            placeholder={open && value !== null ? labelOf(value) : placeholder}
            disabled={disabled}
            required={required}
            autoFocus={autoFocus}
            {...described(id, fault)}
          />
        </Popover.Anchor>
        <Popover.Portal>
          <Popover.Content
            align="start"
            sideOffset={4}
            onOpenAutoFocus={(e) => e.preventDefault()}
            onCloseAutoFocus={(e) => e.preventDefault()}
            onInteractOutside={(e) => e.target === input.current && e.preventDefault()}
            className="z-[60] w-[max(var(--radix-popover-trigger-width),300px)] max-w-[calc(100vw-24px)] overflow-hidden rounded-lg border border-line bg-glaze shadow-xl"
          >
            {kind === 'item' && workedOn !== '' && (
              <p className="border-b border-line bg-glaze-2 px-2.5 py-1.5 text-[12.5px] text-ink-2">for {workedOn}</p>
            )}
            <Command shouldFilter={false} value={at} onValueChange={setAt} vimBindings={false}>
              <Command.List
                ref={choices}
                label={label}
                className="max-h-[300px] overflow-y-auto p-1"
                onMouseDown={(e) => e.preventDefault()}
              >
                {list.ready && keys.length === 0 && (
                  <p className="px-2.5 py-2 text-ink-2">
                    {free === undefined ? 'No match.' : 'No item matches. The text stays as you typed it.'}
                  </p>
                )}
                {list.things.map((t) => (
                  <Choice key={t.id} value={String(t.id)} onSelect={choose}>
                    {t.number !== '' && <span className="mono shrink-0 font-semibold">{t.number}</span>}
                    <span className="min-w-0 flex-1 truncate">{t.name}</span>
                    <span className="shrink-0 text-[12.5px] text-ink-2">{t.detail}</span>
                  </Choice>
                ))}
                {makes && (
                  <Choice value={MAKE} onSelect={choose}>
                    <span className="text-copper-text">
                      {make.words} “{typed?.trim()}”…
                    </span>
                  </Choice>
                )}
              </Command.List>
            </Command>
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </Framed>
  );
}

function Choice({
  value,
  onSelect,
  children,
}: {
  value: string;
  onSelect: (key: string) => void;
  children: ReactNode;
}) {
  return (
    <Command.Item
      value={value}
      onSelect={() => onSelect(value)}
      className="flex min-h-[32px] cursor-pointer items-baseline gap-2.5 rounded-md px-2.5 py-1 data-[selected=true]:bg-glaze-2 max-phone:min-h-[44px] max-phone:items-center"
    >
      {children}
    </Command.Item>
  );
}

/** What the server finds for what is typed; nothing is asked while nothing is. */
function useThings(
  kind: Source,
  typed: string | undefined,
  also: readonly Choice[] | undefined,
  onFound: (things: readonly Choice[]) => void,
) {
  const { unitsUnused } = useYard();
  const [answer, setAnswer] = useState<{ for: string; things: readonly Choice[] }>();
  const found = useEffectEvent(onFound);
  const begun = useEffectEvent((text: string) =>
    (also ?? []).filter((t) => t.name.toLowerCase().startsWith(text.trim().toLowerCase())),
  );
  useEffect(() => {
    if (typed === undefined) return;
    const stop = new AbortController();
    const look = async () => {
      const told =
        typeof kind === 'function'
          ? kind(typed, { unitsUnused })
          : await ask<Choice[]>(`/pick?kind=${kind}&words=${encodeURIComponent(typed)}`, { signal: stop.signal });
      if (told === undefined) return;
      const things = [...begun(typed), ...told];
      setAnswer({ for: typed, things });
    };
    const wait = setTimeout(() => void look(), typed === '' || typeof kind === 'function' ? 0 : WAIT);
    return () => {
      clearTimeout(wait);
      stop.abort();
    };
  }, [kind, typed, unitsUnused]);
  // Told once it is drawn: Enter that comes before finds no answer yet, and one that comes after finds it.
  useEffect(() => {
    if (answer !== undefined && answer.for === typed) found(answer.things);
  }, [answer, typed]);
  return { ready: answer?.for === typed, things: typed === undefined ? [] : (answer?.things ?? []) };
}
