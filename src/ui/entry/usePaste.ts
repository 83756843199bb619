import type { ClipboardEvent } from 'react';
import { toast } from 'sonner';
import { readTypedDay } from '@/core/calendar/typed';
import { grouped } from '@/core/words';
import type { Choice, ChoiceKind } from '@/queries/frame/choices';
import { ask, asJson } from '../acting/ask';
import { tellMissing } from '../acting/later';
import { useYard } from '../frame/YardContext';
import type { SheetProps } from './sheet';
import type { Marking } from './useMark';

async function lookUp(kind: ChoiceKind, words: readonly string[]): Promise<readonly (Choice | null)[]> {
  const asked = asJson(JSON.stringify({ kind, words }), new AbortController().signal);
  return (await ask<(Choice | null)[]>('/pick', asked)) ?? words.map(() => null);
}

/** Puts rows of a spreadsheet into the sheet, from the marked row on. */
export function usePaste<Row>(props: SheetProps<Row>, { at, cols, edit }: Marking<Row>) {
  const { columns, rows, blank, keyOf, onApply, steps } = props;
  const yard = useYard();
  return async (event: ClipboardEvent) => {
    if (edit !== undefined || (event.target as HTMLElement).closest('.entry-detail,input')) return;
    const text = event.clipboardData.getData('text/plain');
    event.preventDefault();
    const program = await import('./paste').catch(tellMissing);
    if (program === undefined) return;
    const { layOut, meaningsOf, MOST_PASTED, putRow, readPasted, wordsOf } = program;
    const pasted = readPasted(text);
    if (pasted.length > MOST_PASTED) {
      toast.error(`${grouped(pasted.length)} rows copied; paste up to ${grouped(MOST_PASTED)} at a time.`);
      return;
    }
    const laid = layOut(pasted, columns, cols[at.col] ?? '');
    const meanings = await meaningsOf(wordsOf(laid, columns), columns, lookUp);
    const readDay = (text: string) => {
      const read = readTypedDay(text, yard.today, yard.calendar, 'ahead');
      return read.ok ? (read.value ?? '') : text;
    };
    const level = props.levelOf ?? (() => 1);
    const targets = rows.filter((r, k) => k >= at.row && level(r) === 1).map(keyOf);
    steps.step();
    onApply(
      laid.rows.map((cells, k) => ({
        key: targets[k] ?? (blank === undefined ? '' : keyOf(blank(k - targets.length))),
        change: (now) => putRow(now, cells, laid, columns, meanings, readDay),
      })),
    );
  };
}
