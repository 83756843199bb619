import type { NextAct } from '@/queries/orders/nextAct';
import Link from './Link';
import { Press } from './Press';
import type { ReactNode } from 'react';

/** The bar at the foot: what is picked or pending on the left, the next action at the right. */
export function Shelf({
  facts,
  fault,
  children,
}: {
  facts: ReactNode;
  fault?: string | undefined;
  children?: ReactNode;
}) {
  return (
    <div
      role="region"
      aria-label="Shelf"
      className="fixed inset-x-0 bottom-0 z-30 flex min-h-[58px] flex-wrap items-center gap-x-6 gap-y-2 bg-shelf px-4 py-2 text-on-rim max-phone:bottom-[52px] sm:px-[22px]"
    >
      <div className="flex min-w-0 flex-1 flex-wrap items-center gap-x-6 gap-y-1 max-phone:basis-full max-phone:gap-x-3 max-phone:gap-y-0">
        {facts}
      </div>
      {fault !== undefined && (
        <p role="alert" className="max-w-[520px] text-[var(--on-shelf-warn)] max-phone:basis-full">
          {fault}
        </p>
      )}
      <div className="flex flex-wrap items-center gap-3 max-phone:ml-auto max-phone:justify-end max-phone:gap-2">
        {children}
      </div>
    </div>
  );
}

export const Fact = ({
  children,
  strong = false,
  warn = false,
}: {
  children: ReactNode;
  strong?: boolean;
  warn?: boolean;
}) => (
  <span
    className={`whitespace-nowrap max-phone:whitespace-normal ${strong ? 'font-bold' : ''} ${warn ? 'text-[var(--on-shelf-warn)]' : strong ? '' : 'text-on-rim-2'}`}
  >
    {children}
  </span>
);

/** How a list is walked; a phone has no keys. */
export const RowKeys = () => (
  <Fact>
    <span className="max-phone:hidden">Press Enter to open the highlighted row</span>
  </Fact>
);

/** Leads on to what a person most likely does next. */
export const ShelfNext = ({ next, main = false }: { next: NextAct | undefined; main?: boolean }) =>
  next === undefined ? null : (
    <Link href={next.href} className={`btn h-[38px] ${main ? 'btn-main' : 'btn-shelf max-phone:hidden'}`}>
      {next.words}
    </Link>
  );

type ButtonProps = {
  readonly onClick?: () => void;
  readonly disabled?: boolean;
  readonly children: ReactNode;
  readonly hint?: string;
  readonly type?: 'button' | 'submit';
  readonly form?: string;
};

export function ShelfMain({ children, hint, type = 'button', ...rest }: ButtonProps) {
  return (
    <Press type={type} className="btn btn-main h-[38px] text-[14.5px]" {...rest}>
      {children}
      {hint !== undefined && (
        <span aria-hidden className="kbd max-phone:hidden">
          {hint}
        </span>
      )}
    </Press>
  );
}

export function ShelfPlain({ children, hint, type = 'button', ...rest }: ButtonProps) {
  return (
    <Press type={type} className="btn btn-shelf max-phone:px-3" {...rest}>
      {children}
      {hint !== undefined && (
        <span aria-hidden className="kbd max-phone:hidden">
          {hint}
        </span>
      )}
    </Press>
  );
}
