'use client';

import { useMemo, useState } from 'react';
import { counted } from '@/core/words';
import type { BomOfItem } from '@/queries/items/boms';
import { later } from '@/ui/acting/later';
import { EntrySheet } from '@/ui/entry/EntrySheet';
import { faultsIn, standing } from '@/ui/entry/reading';
import { moved, nextNew } from '@/ui/entry/rows';
import { useYard } from '@/ui/frame/YardContext';
import { newBomLine } from '@/ui/items/bomText';
import { DateField } from '@/ui/kit/DateField';
import { TextField } from '@/ui/kit/Field';
import Link from '@/ui/kit/Link';
import { Fact, Shelf, ShelfMain, ShelfPlain } from '@/ui/kit/Shelf';
import { BomFile } from './BomFile';
import { bomColumns } from './bomColumns';
import { useBom, type BomItem } from './useBom';
import { WorkedOut } from './WorkedOut';

const InPassing = later(() => import('../../../_shared/items/InPassing'));

type Props = {
  readonly item: BomItem;
  readonly of: BomOfItem;
  /** New version is written from what the last one says. */
  readonly fresh: boolean;
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

/** The BOM of what an item is made of, filled in where it stands, with what it comes to over all levels below. */
export function BomSheet({ item, of, fresh }: Props) {
  const { currency, may } = useYard();
  const bom = useBom(item, of, fresh);
  const { lines, steps, setLines, onApply, faults } = bom;
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
  return (
    <>
      <BomHead item={item} of={of} bom={bom} />
      <EntrySheet
        label="Bill of materials"
        columns={columns}
        rows={lines}
        keyOf={(l) => l.key}
        nameOf={(l) => `Line ${(lines.indexOf(l) + 1 || lines.length + 1).toString()}`}
        headOf={(l) => lines.indexOf(l) + 1 || lines.length + 1}
        blank={bom.mayKeep ? (n) => newBomLine(nextNew(lines) + n) : undefined}
        faultsOf={(l) => {
          const at = lines.indexOf(l);
          const found = at < 0 ? {} : faultsIn(faults, `lines.${at}`, COLUMNS);
          return Object.keys(found).length === 0 ? undefined : found;
        }}
        onApply={onApply}
        steps={steps}
        onTakeOff={bom.takeOff}
        onMove={(key, to) => {
          steps.step();
          setLines((now) => moved(now, key, to));
        }}
      />
      <WorkedOut item={item} lines={lines} fromDay={bom.value.fromDay} />
      <BomShelf itemId={item.id} bom={bom} />
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

type TypedOn = { readonly bom: ReturnType<typeof useBom> };

/** What it is the BOM of, its versions, and what holds for all of this one. */
function BomHead({ item, of: { versions }, bom }: TypedOn & Pick<Props, 'item' | 'of'>) {
  const { day } = useYard();
  const { isNew, value, act, days } = bom;
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
            {v.id === bom.bom?.id && !isNew ? (
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
          onDay={(d: string) => bom.type('fromDay', d)}
          fault={act.faultAt('fromDay')}
        />
        <TextField
          label="Production days"
          inputMode="numeric"
          value={value.makingDays}
          onChange={(e) => bom.type('makingDays', e.target.value)}
          fault={Number.isNaN(days) ? 'Enter whole days.' : act.faultAt('makingDays')}
        />
        <TextField
          label="Note"
          value={value.note}
          onChange={(e) => bom.type('note', e.target.value)}
          fault={act.faultAt('note')}
        />
      </div>
    </>
  );
}

function BomShelf({ itemId, bom }: TypedOn & { readonly itemId: number }) {
  const { act, dropping, faults, isNew, lines, changed, mayKeep, typed, save } = bom;
  return (
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
      {mayKeep && !(changed && !isNew) && <BomFile itemId={itemId} />}
      {changed && !isNew && <ShelfPlain onClick={typed.putBack}>Discard changes</ShelfPlain>}
      {!isNew && mayKeep && !changed && (
        <ShelfPlain disabled={dropping.busy} onClick={bom.remove}>
          Remove this version
        </ShelfPlain>
      )}
      {!isNew && mayKeep && (
        <Link href={`/items/${itemId}/bom?version=new`} className="btn btn-shelf">
          New version
        </Link>
      )}
      {mayKeep && (
        <ShelfMain disabled={act.busy || !(changed || isNew) || lines.length === 0} onClick={save} hint="Ctrl ↵">
          {act.busy ? 'Saving…' : 'Save BOM'}
        </ShelfMain>
      )}
    </Shelf>
  );
}
