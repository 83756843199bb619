'use client';

import { useMemo, useState } from 'react';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { counted } from '@/core/words';
import type { BuyListPage } from '@/queries/buying/buyList';
import type { EntryColumn } from '@/ui/entry/column';
import { beginReading, standing, unknownWords } from '@/ui/entry/reading';
import { Dash } from '@/ui/kit/Sheet';
import { Fact, Shelf, ShelfMain, ShelfPlain } from '@/ui/kit/Shelf';
import { jobLineText, lineFaults, newJobLine, readJobLine, toldLine, type JobLineText } from '@/ui/jobs/jobLineText';
import { useKey } from '@/ui/frame/keys';
import { Versions } from '@/ui/kit/Versions';
import type { Chosen } from '@/ui/acting/versions';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../../actions';
import { JobLineSheet } from '../JobLineSheet';
import type { jobLineColumns } from '../jobLineColumns';
import { useLines } from '../useLines';

/** With what it has beside what is typed: the version it is typed over, and what is still to buy. */
type BuyLineText = JobLineText & { readonly version: number; readonly open: string };

const fresh = (count: number, above: BuyLineText | undefined): BuyLineText => ({
  ...newJobLine(count, above),
  supplier: above?.supplier ?? { thing: null, words: '' },
  version: 0,
  open: '',
});

function readBuyLines(lines: readonly BuyLineText[]) {
  const reading = beginReading();
  const value = lines.map((l, k) => {
    const { cost: price, ...line } = readJobLine(reading, l, (field) => `lines.${k}.${field}`);
    return { ...(l.id === undefined ? {} : { needId: l.id, version: l.version }), ...line, price };
  });
  return { faults: reading.faults, value };
}

const told = (l: BuyLineText) => toldLine(l, []);

/** A line of mine is saved over the version that stands now. */
const over = (line: BuyLineText, theirs: BuyLineText | undefined): BuyLineText =>
  theirs === undefined ? line : { ...line, version: theirs.version, open: theirs.open };

/** A buy list's lines as they are typed. */
export function useBuySheet(list: BuyListPage, job: { readonly id: number; readonly number: string }) {
  const { currency } = useYard();
  const saved = useMemo(
    () => ({
      // Grows with every change of the list, whichever line it was.
      version: list.lines + list.rows.reduce((sum, n) => sum + n.version, 0),
      value: list.rows.map((n): BuyLineText => ({
        ...jobLineText(n, n.price, currency),
        version: n.version,
        open: n.open === 0 ? '' : `${formatQuantity(n.open)} ${unitOf(n.unit).short}`.trim(),
      })),
    }),
    [list, currency],
  );
  const sheet = useLines(`buy list ${job.number} after ${list.before}`, saved, fresh);
  const { lines, changed, typed } = sheet;
  const read = useMemo(() => readBuyLines(changed), [changed]);
  const [tried, setTried] = useState(false);
  const once = useOnce();
  const act = useAct(acts.changeBuyList, {
    said: ({ changed: n, added }) =>
      [n > 0 && `${counted(n, 'line')} changed`, added > 0 && `${counted(added, 'line')} added`]
        .filter(Boolean)
        .join(', '),
    onDone: () => {
      once.renew();
      setTried(false);
      typed.savedAs(saved.version + 1);
    },
  });
  const save = (toSave: readonly BuyLineText[] = changed) => {
    const { faults, value } = readBuyLines(toSave);
    setTried(true);
    if (faults.length === 0) void act.run({ once: once.key(), jobId: job.id, lines: value });
  };
  const { rows, settled } = sheet.versions(told);
  // Lines of which a newer version is saved than the one that was typed over.
  const isOld = (l: BuyLineText) => (saved.value.find((s) => s.key === l.key)?.version ?? l.version) > l.version;
  const settle = (chosen: Chosen) => {
    const kept = settled(over)(chosen);
    const before = new Map(saved.value.map((l) => [l.key, told(l)]));
    once.renew();
    act.clear();
    typed.keep(kept);
    save(kept.value.filter((l) => before.get(l.key) !== told(l)));
  };
  const putBack = () => {
    act.clear();
    typed.putBack();
  };
  /** What stands now was saved by somebody else since one began to type: both versions, to choose from. */
  const clash =
    act.clash !== undefined && lines.some(isOld)
      ? { message: act.clash.message, rows, onSettled: settle, onPutBack: putBack }
      : undefined;
  const faults = [...(tried ? read.faults : unknownWords(read.faults)), ...act.refusals];
  const faultsOf = (line: BuyLineText) =>
    lineFaults(faults, changed.indexOf(line), { itemId: 'description', surplus: 'quantity', price: 'cost' });
  return { ...sheet, lines, act, clash, save, faults, faultsOf };
}

type Props = {
  readonly sheet: ReturnType<typeof useBuySheet>;
  /** How many lines stand before those that are shown. */
  readonly before: number;
  readonly onClose: () => void;
};

/** A buy list filled in where it stands. */
export function BuySheet({ sheet, before, onClose }: Props) {
  const { lines, onApply, steps, act, save, faults, count } = sheet;
  // What is on a buy list is never taken off it: needing none of it any more is a change of its quantity.
  const takeOff = (line: BuyLineText) =>
    line.id === undefined
      ? sheet.takeOff(line)
      : (steps.step(), onApply([{ key: line.key, change: (l) => ({ ...l, quantity: '0' }) }]));
  useKey('Ctrl+Enter', 'Save lines', () => save(), count > 0 && !act.busy);
  if (sheet.clash !== undefined) return <Versions {...sheet.clash} />;
  const fault =
    (act.clash && `${act.clash.message} What you typed is still here.`) ??
    standing(faults, (k) => before + 1 + lines.indexOf(sheet.changed[k] as BuyLineText));
  return (
    <>
      <JobLineSheet
        label="Buy list"
        sheet={sheet}
        before={before}
        columnsOf={columnsOf}
        faultsOf={sheet.faultsOf}
        onTakeOff={takeOff}
      />
      <Shelf fault={fault} facts={<Fact strong>{count === 0 ? 'No changes yet' : sheet.words}</Fact>}>
        {count > 0 && <ShelfPlain onClick={sheet.typed.putBack}>Discard changes</ShelfPlain>}
        {count === 0 && <ShelfPlain onClick={onClose}>View only</ShelfPlain>}
        <ShelfMain disabled={act.busy || count === 0} onClick={() => save()} hint="Ctrl ↵">
          {act.busy ? 'Saving…' : 'Save'}
        </ShelfMain>
      </Shelf>
    </>
  );
}

const columnsOf = (common: ReturnType<typeof jobLineColumns<BuyLineText>>): EntryColumn<BuyLineText>[] => [
  common.what,
  common.quantity,
  common.unit,
  ...common.cost,
  common.code,
  common.supplier,
  common.needed,
  { key: 'open', title: 'To buy', width: '80px', num: true, show: (l) => l.open || <Dash /> },
];
