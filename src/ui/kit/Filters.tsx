'use client';

import { usePathname, useRouter, useSearchParams } from 'next/navigation';
import { useEffect, useRef, useTransition } from 'react';

/** Filters live in the address, so that a list can be kept and passed on. */
function useFilter() {
  const router = useRouter();
  const path = usePathname();
  const params = useSearchParams();
  const [busy, start] = useTransition();
  const set = (name: string, value: string) => {
    const next = new URLSearchParams(params);
    if (value === '') next.delete(name);
    else next.set(name, value);
    next.delete('after');
    next.delete('before');
    start(() => router.replace(`${path}${next.size === 0 ? '' : `?${next}`}`, { scroll: false }));
  };
  return { params, set, busy };
}

const look = 'h-[26px] rounded-md border border-line bg-glaze-2 px-2 text-[13px] text-ellipsis text-ink';

export function FilterChoice({
  name,
  label,
  options,
  fallback = '',
}: {
  name: string;
  label: string;
  options: readonly (readonly [value: string, words: string])[];
  fallback?: string;
}) {
  const { params, set } = useFilter();
  return (
    <select
      aria-label={label}
      className={`${look} max-w-[158px]`}
      value={params.get(name) ?? fallback}
      onChange={(e) => set(name, e.target.value === fallback ? '' : e.target.value)}
    >
      {options.map(([value, words]) => (
        <option key={value} value={value}>
          {words}
        </option>
      ))}
    </select>
  );
}

export function FilterWords({ label, name = 'words' }: { label: string; name?: string }) {
  const { params, set, busy } = useFilter();
  const wait = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(wait.current), []);
  return (
    <input
      type="search"
      aria-label={label}
      aria-busy={busy}
      placeholder={label}
      defaultValue={params.get(name) ?? ''}
      className={`${look} w-[158px] bg-glaze placeholder:text-ink-2`}
      onChange={(e) => {
        const { value } = e.target;
        clearTimeout(wait.current);
        wait.current = setTimeout(() => set(name, value.trim()), 250);
      }}
    />
  );
}

export function FilterDay({ name, label }: { name: string; label: string }) {
  const { params, set } = useFilter();
  return (
    <label className="flex items-center gap-1.5 text-[13px] text-ink-2">
      {label}
      <input type="date" className={look} value={params.get(name) ?? ''} onChange={(e) => set(name, e.target.value)} />
    </label>
  );
}
