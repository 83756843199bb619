'use client';

import { Empty, Sheet } from '@/ui/kit/Sheet';

export default function Fault({ reset }: { reset: () => void }) {
  return (
    <Sheet>
      <Empty title="This page could not be shown">
        Something went wrong in Kettle Tab. Nothing was changed, and the fault is in the log. Try again; if it happens
        again, tell your administrator.{' '}
        <button type="button" className="step" onClick={reset}>
          Try again
        </button>
      </Empty>
    </Sheet>
  );
}
