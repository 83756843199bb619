'use client';

import { X } from 'lucide-react';
import { usePathname, useRouter, useSearchParams } from 'next/navigation';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import type { ListName } from '@/queries/lists/lists';
import { TextField } from '@/ui/kit/Field';
import Link from '@/ui/kit/Link';
import { useAct } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';

/** Views of a list that a person keeps by name: how it is filtered and sorted. */
export function ListViews({ list }: { list: ListName }) {
  const { lists } = useYard();
  const own = lists.views.filter((v) => v.list === list);
  const path = usePathname();
  const router = useRouter();
  const params = new URLSearchParams(useSearchParams());
  params.delete('after');
  const query = params.toString();
  const now = own.find((v) => v.query === query);
  const [name, setName] = useState('');
  const [open, setOpen] = useState(false);
  const keep = useAct(acts.keepView, {
    said: () => `View ${name} saved`,
    onDone: () => {
      setName('');
      router.refresh();
    },
  });
  const drop = useAct(acts.dropView, { onDone: () => router.refresh() });
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger type="button" className="step text-[13px] max-phone:leading-[44px] print:hidden">
        {now === undefined ? 'Views' : `View: ${now.name}`}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={6}
          aria-label="Views"
          className="z-[60] w-[280px] rounded-lg border border-line bg-glaze p-3 shadow-xl"
        >
          {own.length === 0 && (
            <p className="mb-2 text-ink-2">No saved views yet. Filter and sort the list, then name the view.</p>
          )}
          <ul className="mb-2">
            {own.map((v) => (
              <li key={v.id} className="flex items-center gap-2">
                <Link
                  href={`${path}?${v.query}`}
                  onClick={() => setOpen(false)}
                  className={`min-w-0 flex-1 truncate rounded-md px-1.5 py-1.5 hover:bg-glaze-2 ${v === now ? 'font-bold' : ''}`}
                >
                  {v.name}
                </Link>
                <button
                  type="button"
                  aria-label={`Remove view ${v.name}`}
                  className="rounded p-1 text-ink-2 hover:text-brick"
                  onClick={() => void drop.run({ id: v.id })}
                >
                  <X size={14} aria-hidden />
                </button>
              </li>
            ))}
          </ul>
          <form
            className="flex items-end gap-2 border-t border-line pt-2"
            onSubmit={(e) => {
              e.preventDefault();
              void keep.run({ list, name, query });
            }}
          >
            <TextField
              label="Save this view as"
              className="flex-1"
              value={name}
              onChange={(e) => setName(e.target.value)}
              fault={keep.faultAt('name')}
            />
            <button type="submit" className="btn btn-plain h-[34px]" disabled={keep.busy}>
              Save
            </button>
          </form>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
