'use client';

import { useRouter } from 'next/navigation';
import { useCallback, useMemo, useState } from 'react';
import { toast } from 'sonner';
import type { Day } from '@/core/calendar/workdays';
import { counted } from '@/core/words';
import type { BomOfItem } from '@/queries/items/boms';
import { bomLineText, newBomLine, readBomLines, type BomLineText } from '@/ui/items/bomText';
import { EntrySheet } from '@/ui/entry/EntrySheet';
import { faultsIn, standing, unknownWords } from '@/ui/entry/reading';
import { moved, nextNew, put } from '@/ui/entry/rows';
import type { EntryChange } from '@/ui/entry/sheet';
import { useTyped } from '@/ui/entry/useTyped';
import { DateField } from '@/ui/kit/DateField';
import { TextField } from '@/ui/kit/Field';
import { Fact, Shelf, ShelfMain, ShelfPlain } from '@/ui/kit/Shelf';
import { useKey } from '@/ui/frame/keys';
import { later } from '@/ui/acting/later';
import Link from '@/ui/kit/Link';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../../actions';
import { BomFile } from './BomFile';
import { bomColumns } from './bomColumns';
import { WorkedOut } from './WorkedOut';

const InPassing = later(() => import('../../../_shared/items/InPassing'));

type Props = {
  readonly item: { readonly id: number; readonly number: string; readonly name: string; readonly unit: string };
  readonly of: BomOfItem;
  /** New version is written from what the last one says. */
  readonly fresh: boolean;
};

type TypedBom = {
  readonly fromDay: string;
  readonly note: string;
  readonly makingDays: string;
  readonly lines: readonly BomLineText[];
};

const COLUMNS = {
  description: 'description',
  itemId: 'description',
  gotBy: 'gotBy',
  quantity: 'quantity',
  unit: 'unit',
  per: 'per',
  scrap: 'scrap',
  offsetDays: 'offset',
  costCodeId: 'code',
  price: 'price',
};

const wholeDays = (text: string): number =>
  /^\d{1,4}$/.test(text.trim()) ? Number(text) : text.trim() === '' ? 0 : NaN;

/** The BOM of what an item is made of, filled in where it stands, with what it comes to over all levels below. */
export function BomSheet({ item, of, fresh }: Props) {
  const { currency, today, may, day } = useYard();
  const router = useRouter();
  const { bom, versions } = of;
  const isNew = fresh || bom === undefined;
  const saved = useMemo(
    () => ({
      version: isNew ? 0 : bom.version,
      value: {
        fromDay: isNew ? today : bom.fromDay,
        note: isNew ? '' : bom.note,
        makingDays: bom === undefined ? '0' : String(bom.makingDays),
        lines: (bom?.lines ?? []).map((l): BomLineText => {
          const { id, ...line } = bomLineText(l, currency);
          return isNew || id === undefined ? line : { ...line, id };
        }),
      } as TypedBom,
    }),
    [bom, isNew, today, currency],
  );
  const typed = useTyped(`bom of ${item.number} ${isNew ? 'new' : bom.id}`, saved);
  const { value, steps } = typed;
  const { lines } = value;
  const { set } = typed;
  const setLines = useCallback(
    (change: (lines: readonly BomLineText[]) => readonly BomLineText[]) =>
      set((now) => ({ ...now, lines: change(now.lines) })),
    [set],
  );
  const onApply = useCallback(
    (changes: readonly EntryChange<BomLineText>[]) =>
      setLines((now) => changes.reduce((all, c) => put(all, c.key, c.change, () => newBomLine(0)), now)),
    [setLines],
  );
  const [making, setMaking] = useState<{ readonly typed: string; readonly key: string }>();
  const columns = useMemo(
    () =>
      bomColumns({
        currency,
        money: may('see money'),
        onMake: may('keep suppliers') ? (line, words) => setMaking({ typed: words, key: line.key }) : undefined,
      }),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what a person may stays the same while they are here
    [currency],
  );
  const [tried, setTried] = useState(false);
  const once = useOnce();
  const act = useAct(acts.saveBom, {
    stay: true,
    said: () => `BOM of ${item.number} saved`,
    onDone: ({ id, version }) => {
      once.renew();
      setTried(false);
      typed.savedAs(version);
      if (isNew) {
        typed.keep(saved);
        router.push(`/items/${item.id}/bom?version=${id}`);
      }
    },
  });
  const dropping = useAct(acts.removeBom, {
    said: () => 'Version removed',
    onDone: () => router.push(`/items/${item.id}/bom`),
  });
  const read = useMemo(() => readBomLines(lines), [lines]);
  const days = wholeDays(value.makingDays);
  const save = () => {
    setTried(true);
    if (read.faults.length > 0 || Number.isNaN(days)) return;
    void act.run({
      once: once.key(),
      ...{ itemId: item.id, bomId: isNew ? null : bom.id, version: typed.version },
      ...{ fromDay: value.fromDay, note: value.note, makingDays: days, lines: read.value },
    });
  };
  const changed = JSON.stringify(value) !== JSON.stringify(saved.value);
  const mayKeep = may('keep BOMs');
  useKey('Ctrl+Enter', 'Save BOM', save, mayKeep && changed && !act.busy && !typed.waits);
  const faults = [...(tried ? read.faults : unknownWords(read.faults)), ...act.refusals];
  const takeOff = (line: BomLineText) => {
    steps.step();
    setLines((now) => now.filter((l) => l.key !== line.key));
    toast(`${line.description || 'The line'}: line removed`, { action: { label: 'Undo', onClick: steps.undo } });
  };
  const field = (name: keyof Omit<TypedBom, 'lines'>) => (text: string) => set((now) => ({ ...now, [name]: text }));
  return (
    <>
      <h1 className="text-[25px] leading-tight">
        <Link href={`/items/${item.id}`} className="hover:underline">
          {item.name}
        </Link>
      </h1>
      <p className="mb-3 text-ink-2">
        <span className="mono">{item.number}</span> · bill of materials
        {versions.map((v) => (
          <span key={v.id}>
            {' · '}
            {v.id === bom?.id && !isNew ? (
              <b className="text-ink">from {day(v.fromDay)}</b>
            ) : (
              <Link className="step" href={`/items/${item.id}/bom?version=${v.id}`}>
                from {day(v.fromDay)}
              </Link>
            )}
          </span>
        ))}
      </p>
      <div className="mb-3 grid max-w-[720px] gap-3 sm:grid-cols-[150px_130px_1fr]">
        <DateField
          label="Valid from"
          value={value.fromDay}
          onDay={(d: string) => field('fromDay')(d as Day)}
          fault={act.faultAt('fromDay')}
        />
        <TextField
          label="Production days"
          inputMode="numeric"
          value={value.makingDays}
          onChange={(e) => field('makingDays')(e.target.value)}
          fault={Number.isNaN(days) ? 'Enter whole days.' : act.faultAt('makingDays')}
        />
        <TextField
          label="Note"
          value={value.note}
          onChange={(e) => field('note')(e.target.value)}
          fault={act.faultAt('note')}
        />
      </div>
      <EntrySheet
        label="Bill of materials"
        columns={columns}
        rows={lines}
        keyOf={(l) => l.key}
        nameOf={(l) => `Line ${(lines.indexOf(l) + 1 || lines.length + 1).toString()}`}
        headOf={(l) => lines.indexOf(l) + 1 || lines.length + 1}
        blank={mayKeep ? (n) => newBomLine(nextNew(lines) + n) : undefined}
        faultsOf={(l) => {
          const at = lines.indexOf(l);
          const found = at < 0 ? {} : faultsIn(faults, `lines.${at}`, COLUMNS);
          return Object.keys(found).length === 0 ? undefined : found;
        }}
        onApply={onApply}
        steps={steps}
        onTakeOff={takeOff}
        onMove={(key, to) => {
          steps.step();
          setLines((now) => moved(now, key, to));
        }}
      />
      <WorkedOut item={item} lines={lines} fromDay={value.fromDay} />
      <Shelf
        fault={
          act.clash
            ? `${act.clash.message} Open it in another window to compare; what you typed is still here.`
            : (standing(faults) ?? dropping.refusals[0]?.message ?? dropping.clash?.message)
        }
        facts={
          <>
            <Fact strong>{isNew ? 'New version' : counted(lines.length, 'line')}</Fact>
            {changed && !isNew && <Fact>Unsaved changes · kept on this device</Fact>}
          </>
        }
      >
        {mayKeep && !(changed && !isNew) && <BomFile itemId={item.id} />}
        {changed && !isNew && <ShelfPlain onClick={typed.putBack}>Discard changes</ShelfPlain>}
        {!isNew && mayKeep && !changed && (
          <ShelfPlain
            disabled={dropping.busy}
            onClick={() => void dropping.run({ bomId: bom.id, version: bom.version })}
          >
            Remove this version
          </ShelfPlain>
        )}
        {!isNew && mayKeep && (
          <Link href={`/items/${item.id}/bom?version=new`} className="btn btn-shelf">
            New version
          </Link>
        )}
        {mayKeep && (
          <ShelfMain disabled={act.busy || !(changed || isNew) || lines.length === 0} onClick={save} hint="Ctrl ↵">
            {act.busy ? 'Saving…' : 'Save BOM'}
          </ShelfMain>
        )}
      </Shelf>
      {making !== undefined && (
        <InPassing
          making={{ kind: 'item', typed: making.typed }}
          onClose={() => setMaking(undefined)}
          onItem={(thing) =>
            onApply([
              {
                key: making.key,
                change: (l) => {
                  const entry = columns.find((c) => c.key === 'description')?.entry;
                  return entry?.kind === 'pick' ? entry.take(l, thing) : l;
                },
              },
            ])
          }
        />
      )}
    </>
  );
}
