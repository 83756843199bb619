import { useState } from 'react';
import type { Answer } from './useAct';

/** How one of many goes: `why` says why it did not, where the outcome alone does not tell. */
type One<Row, T> = {
  readonly act: (row: Row) => Promise<Answer<T> | undefined>;
  readonly why?: (value: T) => string | undefined;
};

/** Does the same with many things, one after the other; what does not go is told by its name, and keeps no other back. */
export function useMany<Row extends { readonly number: string }>() {
  const [doing, setDoing] = useState<{ readonly at: number; readonly of: number }>();
  const [faults, setFaults] = useState<readonly string[]>([]);
  /** @returns those that did not go */
  const run = async <T>(rows: readonly Row[], one: One<Row, T>): Promise<Row[]> => {
    const left: Row[] = [];
    const told: string[] = [];
    for (const [k, row] of rows.entries()) {
      setDoing({ at: k + 1, of: rows.length });
      const fault = await faultOf(row, one);
      if (fault === undefined) continue;
      left.push(row);
      told.push(`${row.number}: ${fault}`);
    }
    setDoing(undefined);
    setFaults(told);
    return left;
  };
  return { doing, faults, run };
}

async function faultOf<Row, T>(row: Row, { act, why }: One<Row, T>): Promise<string | undefined> {
  try {
    const answer = await act(row);
    const outcome = answer?.data;
    if (outcome?.status === 'done') return why?.(outcome.value);
    if (outcome?.status === 'refused') return outcome.refusals[0]?.message ?? 'not done, try again';
    return outcome?.message ?? answer?.serverError?.message ?? 'not done, try again';
  } catch {
    return 'no connection, try again';
  }
}
