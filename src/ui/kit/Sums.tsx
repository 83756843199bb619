export type SumRow = {
  readonly label: string;
  readonly amount: string;
  readonly strong?: boolean;
  readonly over?: boolean;
};

/** A short column of sums under a ledger, the total last. */
export function Sums({ rows }: { rows: readonly SumRow[] }) {
  return (
    <dl className="mt-2 ml-auto w-full max-w-[290px] text-[13.5px]">
      {rows.map((r) => (
        <div
          key={r.label}
          className={`flex justify-between border-b border-line-2 px-2 py-1 ${r.strong ? 'text-[15px] font-bold' : ''} ${r.over ? 'text-brick' : ''}`}
        >
          <dt>{r.label}</dt>
          <dd>{r.amount}</dd>
        </div>
      ))}
    </dl>
  );
}
