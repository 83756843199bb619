import type { SignStep } from '@/queries/signoff/signOff';

const MARK: Readonly<Record<SignStep['state'], string>> = {
  signed: 'border-enamel bg-enamel text-glaze',
  now: 'border-copper bg-copper text-on-copper',
  later: 'border-ink-3 text-ink-2',
  unasked: 'border-ink-3 text-ink-2',
};

const SAID: Readonly<Record<SignStep['state'], string>> = {
  signed: 'Signed',
  now: 'Awaiting signature',
  later: 'Signed later',
  unasked: 'Not yet requested',
};

/** Who signs, in sequence: what is signed, what is to be signed now, and what waits for that. */
export function SignSteps({ steps }: { readonly steps: readonly SignStep[] }) {
  return (
    <ol className="grid gap-2.5">
      {steps.map((s) => (
        <li key={`${s.place}/${s.who}/${s.why}`} className="flex gap-2.5">
          <span
            className={`mt-px flex size-6 shrink-0 items-center justify-center rounded-full border-2 text-[12px] font-bold ${MARK[s.state]}`}
          >
            <span aria-hidden>{s.state === 'signed' ? '✓' : s.place}</span>
            <span className="sr-only">{`${SAID[s.state]}, step ${s.place}:`}</span>
          </span>
          <span className="min-w-0">
            <b className="font-semibold first-letter:uppercase">{nameOf(s)}</b>{' '}
            <span className="text-ink-2">{s.why}</span>
            {s.detail !== '' && <span className="block text-[12.5px] text-ink-2">{s.detail}</span>}
            {s.barred !== '' && <span className="block text-[12.5px] text-amber">{s.barred}</span>}
          </span>
        </li>
      ))}
    </ol>
  );
}

function nameOf({ mine, who }: SignStep): string {
  if (mine === null) return `${who.charAt(0).toUpperCase()}${who.slice(1)}`;
  return mine.forName === null ? 'You' : `You, for ${mine.forName}`;
}
