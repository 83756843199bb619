'use client';

import { useState } from 'react';
import { GOT_BY, GOT_BY_NAMES, PER, type GotBy, type Per } from '@/core/boms/bom';
import { signOf } from '@/core/money/money';
import type { BomLineView, BranchBom } from '@/queries/items/boms';
import { bomLineText, newBomLine, readBomLines, type BomLineText } from '@/ui/items/bomText';
import { faultsIn } from '@/ui/entry/reading';
import { ChoiceField, Faults, TextField } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { PickField } from '@/ui/kit/PickField';
import { Slip } from '@/ui/kit/Slip';
import { UnitField } from '@/ui/kit/UnitField';
import { useKey } from '@/ui/frame/keys';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../../actions';
import { PER_NAMES } from './bomColumns';

type Props = {
  readonly bom: BranchBom;
  /** undefined for one more part of that BOM. */
  readonly line: BomLineView | undefined;
  readonly title: string;
  readonly onDone: () => void;
  readonly onClose: () => void;
};

const CELLS = {
  description: 'description',
  itemId: 'description',
  quantity: 'quantity',
  unit: 'unit',
  scrap: 'scrap',
  offsetDays: 'offset',
  price: 'price',
};

/** A branch of a tree, changed in the BOM that it stands in: everything that is made by that BOM changes with it. */
export default function BranchSlip({ bom, line, title, onDone, onClose }: Props) {
  const { currency, may } = useYard();
  const [text, setText] = useState<BomLineText>(() =>
    line === undefined ? newBomLine(0) : bomLineText(line, currency),
  );
  const [tried, setTried] = useState(false);
  const once = useOnce();
  const act = useAct(acts.changeBranch, {
    onDone: () => {
      onDone();
      onClose();
    },
  });
  const { faults, value } = readBomLines([text]);
  const put = (change: Partial<BomLineText>) => setText((now) => ({ ...now, ...change }));
  const send = (lines: typeof value) => {
    const [read] = lines;
    const { id: _, ...fields } = read ?? { id: 0 };
    void act.run({
      once: once.key(),
      ...{ bomId: bom.bomId, version: bom.version, lineId: line?.id ?? null },
      line: read === undefined ? null : (fields as Exclude<typeof read, undefined>),
    });
  };
  const save = () => {
    setTried(true);
    if (faults.length === 0) send(value);
  };
  useKey('Ctrl+Enter', 'Save line', save, !act.busy);
  const told = faultsIn(tried ? faults : [], 'lines.0', CELLS);
  const here = text.number === '' ? null : { id: text.itemId ?? 0, number: text.number, name: text.description };
  return (
    <Slip
      open
      onClose={onClose}
      title={title}
      detail="Changes everything made to this BOM."
      foot={
        <div className="grid gap-2">
          <Faults messages={act.clash ? [act.clash.message] : act.refusals.map((r) => r.message)} />
          <div className="flex items-center justify-end gap-3">
            {line !== undefined && (
              <button type="button" className="step mr-auto" disabled={act.busy} onClick={() => send([])}>
                Remove
              </button>
            )}
            <button type="button" className="btn btn-main" disabled={act.busy} onClick={save}>
              Save line{' '}
              <span className="kbd" aria-hidden>
                Ctrl ↵
              </span>
            </button>
          </div>
        </div>
      }
    >
      <div className="grid gap-3">
        <PickField
          kind="item"
          label="Item"
          value={here}
          free={{ text: text.description, onText: (description) => put({ description, itemId: null, number: '' }) }}
          fault={told.description}
          onPick={(item) =>
            item !== null &&
            put({
              ...{ itemId: item.id, number: item.number, description: item.name, unit: item.unit },
              gotBy: item.made ? 'made' : 'bought',
              // Nothing stands for what its supplier asks.
              cost: '',
            })
          }
        />
        <div className="grid grid-cols-2 items-start gap-3">
          <NumberField
            label="Quantity"
            value={text.quantity}
            fault={told.quantity}
            onChange={(e) => put({ quantity: e.target.value })}
          />
          <UnitField label="Unit" value={text.unit} onUnit={(unit) => put({ unit, unitWords: '' })} />
          <ChoiceField label="Per" value={text.per} onChange={(e) => put({ per: e.target.value as Per })}>
            {PER.map((per) => (
              <option key={per} value={per}>
                {PER_NAMES[per]}
              </option>
            ))}
          </ChoiceField>
          <ChoiceField label="Type" value={text.gotBy} onChange={(e) => put({ gotBy: e.target.value as GotBy })}>
            {GOT_BY.map((got) => (
              <option key={got} value={got}>
                {GOT_BY_NAMES[got]}
              </option>
            ))}
          </ChoiceField>
          <TextField
            label="Scrap %"
            inputMode="decimal"
            placeholder="none"
            value={text.scrap}
            fault={told.scrap}
            onChange={(e) => put({ scrap: e.target.value })}
          />
          <TextField
            label="Needed at"
            placeholder="at the start"
            value={text.offset}
            fault={told.offset}
            onChange={(e) => put({ offset: e.target.value })}
          />
          {may('see money') && (
            <TextField
              label={`Set price ${signOf(currency)}`}
              inputMode="decimal"
              placeholder="supplier’s price"
              value={text.cost}
              fault={told.price}
              onChange={(e) => put({ cost: e.target.value })}
            />
          )}
        </div>
      </div>
    </Slip>
  );
}
