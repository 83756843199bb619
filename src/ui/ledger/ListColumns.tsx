'use client';

import { ChevronUp, Columns3 } from 'lucide-react';
import { Popover } from 'radix-ui';
import type { Column } from './column';
import type { ListState } from './Listed';

type Props<Row> = { readonly list: ListState; readonly columns: readonly Column<Row>[] };

/** Which columns a person sees, and in which order; kept for that person. */
export function ListColumns<Row>({ list, columns }: Props<Row>) {
  const known = new Map(columns.map((c) => [c.key, c]));
  const order = list.order(columns.map((c) => c.key));
  const { choose } = list;
  const hidden = list.hidden(columns);
  const toggle = (key: string) =>
    choose({ order, hidden: hidden.includes(key) ? hidden.filter((k) => k !== key) : [...hidden, key] });
  const raise = (at: number) =>
    choose({
      order: [...order.slice(0, at - 1), order[at] ?? '', order[at - 1] ?? '', ...order.slice(at + 1)],
      hidden,
    });
  return (
    <Popover.Root>
      <Popover.Trigger
        type="button"
        aria-label="Columns"
        title="Columns"
        className="grid size-7 place-items-center rounded-md text-ink-2 hover:text-ink"
      >
        <Columns3 size={15} aria-hidden />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          aria-label="Columns"
          className="z-[60] w-[230px] rounded-lg border border-line bg-glaze p-2 text-[13.5px] font-normal shadow-xl"
        >
          <ul>
            {order.map((key, at) => {
              const head = known.get(key)?.head;
              if (head === '' || head === undefined) return null;
              return (
                <li key={key} className="flex items-center gap-2 rounded-md px-1.5 py-1 hover:bg-glaze-2">
                  <label className="flex min-w-0 flex-1 items-center gap-2">
                    <input
                      type="checkbox"
                      className="size-[15px] accent-[var(--copper)]"
                      checked={!hidden.includes(key)}
                      // The first column says what a row is, and opens it.
                      disabled={at === 0}
                      onChange={() => toggle(key)}
                    />
                    {head}
                  </label>
                  {at > 1 && (
                    <button
                      type="button"
                      aria-label={`Move ${typeof head === 'string' ? head : key} left`}
                      title="Move left"
                      className="rounded p-1 text-ink-2 hover:text-ink"
                      onClick={() => raise(at)}
                    >
                      <ChevronUp size={14} aria-hidden />
                    </button>
                  )}
                </li>
              );
            })}
          </ul>
          <button
            type="button"
            className="step mt-1 px-1.5"
            onClick={() =>
              choose({
                order: columns.map((c) => c.key),
                hidden: columns.filter((c) => c.extra === true).map((c) => c.key),
              })
            }
          >
            Reset columns
          </button>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
