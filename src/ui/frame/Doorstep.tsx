import type { ReactNode } from 'react';
import { Wordmark } from './Band';

type Props = { readonly title: string; readonly width: string; readonly children: ReactNode };

/** A page for who is not inside yet: one card on the rim. */
export const Doorstep = ({ title, width, children }: Props) => (
  <main className="grid min-h-dvh place-items-center bg-rim px-4 py-8">
    <div className={`w-full ${width}`}>
      <Wordmark />
      <div className="mt-4 rounded-xl bg-glaze p-6 shadow-2xl">
        <h1 className="mb-4 text-[24px]">{title}</h1>
        {children}
      </div>
    </div>
  </main>
);
