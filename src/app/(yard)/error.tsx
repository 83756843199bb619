'use client';

import { Empty, Sheet } from '@/ui/kit/Sheet';

export default function Fault({ reset }: { reset: () => void }) {
  return (
    <Sheet>
      <Empty title="This page could not be shown">
        A fault in Kettle Tab was written to its log. Nothing was changed.{' '}
        <button type="button" className="step" onClick={reset}>
          Try again
        </button>
      </Empty>
    </Sheet>
  );
}
