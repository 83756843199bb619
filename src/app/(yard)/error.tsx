'use client';

import { Empty, Sheet } from '@/ui/kit/Sheet';

export default function Fault({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  return (
    <Sheet>
      <Empty title="This page could not be shown">
        Something went wrong in Kettle Tab. Nothing was changed. Try again; if it happens again, tell your administrator
        the number of the fault{error.digest !== undefined && `: ${error.digest}`}.{' '}
        <button type="button" className="step" onClick={reset}>
          Try again
        </button>
      </Empty>
    </Sheet>
  );
}
