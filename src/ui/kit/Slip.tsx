'use client';

import { Dialog } from 'radix-ui';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';

type Props = {
  readonly open: boolean;
  readonly onClose: () => void;
  readonly title: ReactNode;
  readonly detail?: ReactNode;
  readonly children: ReactNode;
  readonly foot?: ReactNode;
};

/** What had the focus when something was laid over the page: it has it again once that is closed. */
const openers = new WeakMap<EventTarget, HTMLElement>();

function remember(event: Event): void {
  if (event.currentTarget !== null && document.activeElement instanceof HTMLElement)
    openers.set(event.currentTarget, document.activeElement);
}

function goBack(event: Event): void {
  const opener = event.currentTarget === null ? undefined : openers.get(event.currentTarget);
  if (opener?.isConnected !== true) return;
  event.preventDefault();
  opener.focus();
}

/** What is opened to be filled in is filled in at once; with no field, the first button has the focus. */
function beginAtFirstField(event: Event): void {
  remember(event);
  const slip = event.currentTarget as HTMLElement;
  const first = slip.querySelector<HTMLElement>('[autofocus], input:enabled, textarea:enabled, select:enabled');
  if (first === null) return;
  event.preventDefault();
  first.focus();
}

/** A sheet from the right for a quick look, without leaving the place. */
export function Slip({ open, onClose, title, detail, children, foot }: Props) {
  return (
    <Dialog.Root open={open} onOpenChange={(now) => !now && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-[#17262b]/35" />
        <Dialog.Content
          aria-describedby={undefined}
          onOpenAutoFocus={beginAtFirstField}
          onCloseAutoFocus={goBack}
          className="fixed inset-y-0 right-0 z-50 flex w-full max-w-[440px] flex-col border-l border-line bg-glaze shadow-2xl"
        >
          <div className="flex items-start gap-3 border-b border-line px-5 py-4">
            <div className="min-w-0 flex-1">
              <Dialog.Title className="text-[18px] leading-tight">{title}</Dialog.Title>
              {detail !== undefined && <div className="mt-1 text-ink-2">{detail}</div>}
            </div>
            <Dialog.Close className="rounded-md p-1 text-ink-2 hover:text-ink" aria-label="Close">
              <X size={18} />
            </Dialog.Close>
          </div>
          <div className="min-h-0 flex-1 overflow-y-auto px-5 py-4" tabIndex={0}>
            {children}
          </div>
          {foot !== undefined && <div className="border-t border-line bg-glaze-2 px-5 py-3">{foot}</div>}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** A question in the middle, only for what cannot be undone. */
export function Question({
  open,
  onClose,
  title,
  children,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  children: ReactNode;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={(now) => !now && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-[#17262b]/45" />
        <Dialog.Content
          aria-describedby={undefined}
          onOpenAutoFocus={remember}
          onCloseAutoFocus={goBack}
          className="fixed top-1/2 left-1/2 z-50 w-[min(440px,calc(100vw-24px))] -translate-x-1/2 -translate-y-1/2 rounded-xl border border-line bg-glaze p-5 shadow-2xl"
        >
          <Dialog.Title className="mb-3 text-[18px]">{title}</Dialog.Title>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
