'use client';

import { parseAsString, useQueryStates } from 'nuqs';
import { useSearchParams } from 'next/navigation';
import { useEffect, useRef, useState, useTransition, type ReactNode } from 'react';
import type { Choice, ChoiceKind } from '@/queries/frame/choices';
import { DateField } from './DateField';
import { PickField } from './PickField';

/** Filters live in the address, so that a list can be kept and passed on; a changed one begins at the top again. */
function useFilter(name: string) {
  const [busy, startTransition] = useTransition();
  const [values, put] = useQueryStates(
    { [name]: parseAsString, after: parseAsString, before: parseAsString },
    { shallow: false, scroll: false, startTransition },
  );
  const set = (value: string) => void put({ [name]: value === '' ? null : value, after: null, before: null });
  return { value: values[name] ?? undefined, set, busy };
}

const look = 'field field-small text-ellipsis';

type Filter = { readonly name: string; readonly label: string };

export function FilterChoice({
  name,
  label,
  options,
  fallback = '',
}: Filter & {
  options: readonly (readonly [value: string, words: string])[];
  fallback?: string;
}) {
  const { value, set } = useFilter(name);
  return (
    <select
      aria-label={label}
      className={`${look} !w-auto max-w-[158px]`}
      value={value ?? fallback}
      onChange={(e) => set(e.target.value === fallback ? '' : e.target.value)}
    >
      {options.map(([key, words]) => (
        <option key={key} value={key}>
          {words}
        </option>
      ))}
    </select>
  );
}

export function FilterWords({ label, name = 'words' }: { label: string; name?: string }) {
  const { value, set, busy } = useFilter(name);
  const wait = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(wait.current), []);
  return (
    <input
      type="search"
      aria-label={label}
      aria-busy={busy}
      placeholder={label}
      defaultValue={value ?? ''}
      className={`${look} !w-[158px] placeholder:text-ink-2`}
      onChange={(e) => {
        const typed = e.target.value.trim();
        clearTimeout(wait.current);
        wait.current = setTimeout(() => set(typed), 250);
      }}
    />
  );
}

export function FilterDay({ name, label, back = false }: Filter & { back?: boolean }) {
  const { value, set } = useFilter(name);
  return (
    <div className="flex items-center gap-1.5 text-[13px] text-ink-2">
      <span aria-hidden>{label}</span>
      <DateField
        label={label}
        hideLabel
        small
        className="w-[136px]"
        towards={back ? 'back' : 'ahead'}
        value={value ?? ''}
        onDay={set}
      />
    </div>
  );
}

type PickProps = Filter & {
  readonly kind: ChoiceKind;
  /** What stands in the address: the thing's id or its number. */
  readonly by: 'id' | 'number';
  readonly value: Choice | null;
  /** What the list shows when nothing is picked. */
  readonly all: string;
  readonly also?: readonly Choice[];
};

export function FilterPick({ name, label, kind, by, value, all, also }: PickProps) {
  const { set } = useFilter(name);
  return (
    <PickField
      kind={kind}
      label={label}
      hideLabel
      small
      className="w-[158px]"
      placeholder={all}
      value={value}
      also={also}
      onPick={(thing) => set(thing === null ? '' : String(thing[by]))}
    />
  );
}

/** Filters that a phone folds away until they are asked for; it says how many of them are set. */
export function MoreFilters({ names, children }: { names: readonly string[]; children: ReactNode }) {
  const [open, setOpen] = useState(false);
  const asked = useSearchParams();
  const set = names.filter((name) => asked.has(name)).length;
  return (
    <>
      <button
        type="button"
        aria-expanded={open}
        className="btn btn-plain phone:hidden"
        onClick={() => setOpen((now) => !now)}
      >
        {open ? 'Fewer filters' : `More filters${set === 0 ? '' : ` (${set} on)`}`}
      </button>
      <span className={open ? 'contents' : 'contents max-phone:hidden'}>{children}</span>
    </>
  );
}
