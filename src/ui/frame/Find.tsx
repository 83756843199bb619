'use client';

import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { useKey } from './keys';
import { later } from '../acting/later';

const FindBox = later(() => import('./FindBox'));

/** Finds anything by its number or words, and every place, from anywhere; on a phone from its foot bar. */
export function FindButton({ foot = false }: { foot?: boolean }) {
  const [open, setOpen] = useState(false);
  useKey('/', 'Find', () => setOpen(true), !foot);
  return (
    <>
      {foot ? (
        <button type="button" onClick={() => setOpen(true)} className="flex-1 font-semibold">
          Find
        </button>
      ) : (
        <button
          type="button"
          onClick={() => setOpen(true)}
          className="flex h-[31px] w-[216px] items-center justify-between rounded-lg border border-[#4d7270] bg-rim-2 px-3 text-left text-on-rim-2 max-phone:hidden"
        >
          Find item, job, order…
          <span aria-hidden className="kbd ml-auto">
            /
          </span>
        </button>
      )}
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
