'use client';

import { useMemo, useState } from 'react';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { counted } from '@/core/words';
import type { BuyListPage } from '@/queries/needs';
import { EntrySheet } from '@/ui/entry/EntrySheet';
import { beginReading, faultsIn, standing, unknownWords } from '@/ui/entry/reading';
import { Dash } from '@/ui/kit/Sheet';
import { Fact, Shelf, ShelfMain, ShelfPlain } from '@/ui/kit/Shelf';
import { jobLineText, newJobLine, readJobLine, type JobLineText } from '@/ui/jobLineText';
import { useKey } from '@/ui/keys';
import { useAct, useOnce } from '@/ui/useAct';
import { useYard } from '@/ui/YardContext';
import { changeBuyList } from '../../../../acts';
import { jobLineColumns } from '../jobLineColumns';
import { MakeForLine, useLines, type MakingFor } from '../useLines';

/** With what it has beside what is typed: the version it is typed over, and what is still to buy. */
type BuyLineText = JobLineText & { readonly version: number; readonly open: string };

const fresh = (count: number, above: BuyLineText | undefined): BuyLineText => ({
  ...newJobLine(count, above),
  supplier: above?.supplier ?? { thing: null, words: '' },
  version: 0,
  open: '',
});

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
  const read = useMemo(() => {
    const reading = beginReading();
    const value = changed.map((l, k) => {
      const { cost: price, ...line } = readJobLine(reading, l, (field) => `lines.${k}.${field}`);
      return { ...(l.id === undefined ? {} : { needId: l.id, version: l.version }), ...line, price };
    });
    return { faults: reading.faults, value };
  }, [changed]);
  const [tried, setTried] = useState(false);
  const once = useOnce();
  const act = useAct(changeBuyList, {
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
  const save = () => {
    setTried(true);
    if (read.faults.length === 0) void act.run({ once: once.key(), jobId: job.id, lines: read.value });
  };
  const faults = [...(tried ? read.faults : unknownWords(read.faults)), ...act.refusals];
  const faultsOf = (line: BuyLineText) => {
    const at = changed.indexOf(line);
    const found = faultsIn(faults, `lines.${at}`, {
      description: 'description',
      itemId: 'description',
      quantity: 'quantity',
      surplus: 'quantity',
      unit: 'unit',
      price: 'cost',
      cost: 'cost',
      costCodeId: 'code',
      supplierId: 'supplier',
      neededOn: 'neededOn',
    });
    return at < 0 || Object.keys(found).length === 0 ? undefined : found;
  };
  return { ...sheet, lines, act, save, faults, faultsOf };
}

type Props = {
  readonly sheet: ReturnType<typeof useBuySheet>;
  /** How many lines stand before those that are shown. */
  readonly before: number;
  readonly onClose: () => void;
};

/** A buy list filled in where it stands. */
export function BuySheet({ sheet, before, onClose }: Props) {
  const { lines, blank, onApply, steps, act, save, faults, faultsOf, count } = sheet;
  const { currency, may } = useYard();
  const [making, setMaking] = useState<MakingFor>();
  const [money, mayMake] = [may('see money'), may('keep suppliers')];
  const columns = useMemo(() => {
    const onMake = (kind: 'item' | 'supplier', line: BuyLineText, typed: string) =>
      setMaking({ kind, typed, key: line.key });
    const common = jobLineColumns<BuyLineText>({ currency, money, onMake: mayMake ? onMake : undefined });
    return [
      common.what,
      common.quantity,
      common.unit,
      ...common.cost,
      common.code,
      common.supplier,
      common.needed,
      { key: 'open', title: 'To buy', width: '80px', num: true, show: (l: BuyLineText) => l.open || <Dash /> },
    ];
  }, [currency, money, mayMake]);
  // What is on a buy list is never taken off it: needing none of it any more is a change of its quantity.
  const takeOff = (line: BuyLineText) =>
    line.id === undefined
      ? sheet.takeOff(line)
      : (steps.step(), onApply([{ key: line.key, change: (l) => ({ ...l, quantity: '0' }) }]));
  const placeOf = (line: BuyLineText) => before + 1 + (lines.includes(line) ? lines.indexOf(line) : lines.length);
  useKey('Ctrl+Enter', 'Save the lines', save, count > 0 && !act.busy);
  const fault =
    (act.clash && `${act.clash.message} What you typed is still here.`) ??
    standing(faults, (k) => placeOf(sheet.changed[k] as BuyLineText));
  return (
    <>
      <EntrySheet
        label="Buy list"
        columns={columns}
        rows={lines}
        blank={blank}
        keyOf={(l) => l.key}
        nameOf={(l) => `Line ${placeOf(l)}`}
        headOf={placeOf}
        faultsOf={faultsOf}
        onApply={onApply}
        steps={steps}
        onTakeOff={takeOff}
      />
      <MakeForLine making={making} columns={columns} onApply={onApply} onClose={() => setMaking(undefined)} />
      <Shelf fault={fault} facts={<Fact strong>{count === 0 ? 'Nothing is changed yet' : sheet.words}</Fact>}>
        {count > 0 && <ShelfPlain onClick={sheet.typed.putBack}>Put back</ShelfPlain>}
        {count === 0 && <ShelfPlain onClick={onClose}>Only look</ShelfPlain>}
        <ShelfMain disabled={act.busy || count === 0} onClick={save} hint="^↵">
          {act.busy ? 'Saving…' : 'Save'}
        </ShelfMain>
      </Shelf>
    </>
  );
}
