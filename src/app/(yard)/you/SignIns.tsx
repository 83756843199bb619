'use client';

import type { Day } from '@/core/calendar/workdays';
import type { SignInRow } from '@/queries/people/people';
import { Faults } from '@/ui/kit/Field';
import { Wide } from '@/ui/kit/Sheet';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { useAct } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../actions';

const SYSTEMS: readonly (readonly [RegExp, string])[] = [
  [/android/i, 'a phone'],
  [/iphone|ipad/i, 'a phone or tablet'],
  [/./, 'a computer'],
];

/** Where a browser says it runs. */
const machine = (browser: string): string => SYSTEMS.find(([sign]) => sign.test(browser))?.[1] ?? 'a program';

export function SignIns({ rows, own }: { rows: readonly SignInRow[]; own: number }) {
  const { day } = useYard();
  const end = useAct(acts.endMySessions, {
    said: ({ ended }) => (ended === 1 ? 'Device signed out' : `${ended} devices signed out`),
  });
  const moment = (at: string) => `${day(at.slice(0, 10) as Day)} ${at.slice(11, 16)}`;
  const columns: Column<SignInRow>[] = [
    {
      key: 'from',
      head: 'From',
      cell: (r) => (
        <span title={r.browser} className="flex flex-wrap items-center gap-x-2">
          {machine(r.browser)} at {r.place || 'unknown address'}
          {r.id === own && <span className="tag tag-good">this device</span>}
        </span>
      ),
    },
    { key: 'begun', head: 'Signed in', wide: true, className: 'whitespace-nowrap', cell: (r) => moment(r.begunAt) },
    { key: 'seen', head: 'Last used', className: 'whitespace-nowrap', cell: (r) => moment(r.seenAt) },
    {
      key: 'end',
      head: <span className="sr-only">Sign out</span>,
      className: '!text-right',
      cell: (r) =>
        r.id !== own && (
          <button type="button" className="step" onClick={() => void end.run({ only: r.id })}>
            Sign out
          </button>
        ),
    },
  ];
  return (
    <>
      <Wide label="Signed-in devices">
        <LedgerTable label="Signed-in devices" rows={rows} columns={columns} keyOf={(r) => r.id} />
      </Wide>
      <Faults messages={end.refusals.map((r) => r.message)} />
      {rows.length > 1 && (
        <button
          type="button"
          className="btn btn-plain mt-4"
          disabled={end.busy}
          onClick={() => void end.run({ but: own })}
        >
          Sign out all others
        </button>
      )}
    </>
  );
}
