'use client';

import { measured } from '@/core/quantity/units';
import { moveForm, scrapForm, transferForm } from '@/core/records/stock';
import type { PileView } from '@/queries/stores/stock';
import { ChoiceField, TextField } from '@/ui/kit/Field';
import { PickField } from '@/ui/kit/PickField';
import { useActForm } from '@/ui/acting/useActForm';
import { acts } from '../../../actions';
import { HowMuch } from './HowMuch';
import { numbersOf, StockSlip, type Common } from './StockSlips';

type Of = Common & { readonly pile: PileView };

const keyOf = ({ view, pile }: Of) => ({ itemId: view.item.id, placeId: pile.placeId, jobId: pile.jobId });
const detailOf = ({ view, pile }: Of) =>
  `${pile.place}${pile.job === null ? '' : `, job ${pile.job} stock`} · ${measured(pile.quantity, view.item.unit)} in stock`;

/** Goods go to another place, or from bin to bin. */
export function MoveSlip(props: Of) {
  const { view, pile, onClose } = props;
  const { item, bins, spots } = view;
  const own = spots.filter((s) => s.placeId === pile.placeId && s.jobId === pile.jobId);
  const from = [...new Map(own.map((s) => [s.binId, s.bin])).entries()];
  const form = useActForm({
    read: () => moveForm(item.tracking),
    start: { quantity: '', ticked: [] as string[], from: '', to: '' },
    act: acts.moveStock,
    input: ({ from: bin, to, ...what }, once) => {
      const [toPlaceId = 0, toBinId = 0] = to.split('/').map(Number);
      const binId = bin === '' ? {} : { binId: Number(bin) || null };
      return { once, ...keyOf(props), ...binId, toPlaceId, toBinId: toBinId || null, ...what };
    },
    said: () => `${item.number} moved`,
    onDone: onClose,
  });
  return (
    <StockSlip title={`Move ${item.name}`} detail={detailOf(props)} go="Move" form={form} onClose={onClose}>
      {from.length > 1 && (
        <ChoiceField label="From" {...form.text('from')}>
          <option value="">any bin</option>
          {from.map(([id, name]) => (
            <option key={id ?? 0} value={id ?? 0}>
              {name ?? 'no bin'}
            </option>
          ))}
        </ChoiceField>
      )}
      <ChoiceField label="To" {...form.text('to')}>
        <option value="">–</option>
        {bins.map((b) => (
          <option key={`${b.placeId}/${b.binId ?? 0}`} value={`${b.placeId}/${b.binId ?? 0}`}>
            {b.bin === null ? b.place : `${b.place}, ${b.bin}`}
          </option>
        ))}
      </ChoiceField>
      <HowMuch item={item} numbers={numbersOf(view, pile)} form={form} />
    </StockSlip>
  );
}

/** Goods that are good for nothing any more go out of stores. */
export function ScrapSlip(props: Of) {
  const { view, pile, onClose } = props;
  const form = useActForm({
    read: () => scrapForm(view.item.tracking),
    start: { quantity: '', ticked: [] as string[], reason: '' },
    act: acts.scrapStock,
    input: (read, once) => ({ once, ...keyOf(props), ...read }),
    said: () => `${view.item.number} scrapped`,
    onDone: onClose,
  });
  return (
    <StockSlip title={`Scrap ${view.item.name}`} detail={detailOf(props)} go="Scrap" form={form} onClose={onClose}>
      <HowMuch item={view.item} numbers={numbersOf(view, pile)} form={form} />
      <TextField label="Reason" required maxLength={120} {...form.text('reason')} />
    </StockSlip>
  );
}

/** Goods of a job become another job's, or stores'; their cost goes with them. */
export function TransferSlip(props: Of) {
  const { view, pile, onClose } = props;
  const form = useActForm({
    read: () => transferForm(view.item.tracking),
    start: { quantity: '', ticked: [] as string[], stores: true, jobId: null, costCodeId: null, reason: '' },
    act: acts.transferStock,
    input: (read, once) => ({ once, ...keyOf(props), ...read }),
    said: () => `${view.item.number} transferred`,
    onDone: onClose,
  });
  const toStores = form.typed.stores;
  return (
    <StockSlip
      title={`Transfer ${view.item.name}`}
      detail={`${detailOf(props)}. Its cost moves from one job’s tab to the other.`}
      go="Transfer"
      form={form}
      onClose={onClose}
    >
      <ChoiceField
        label="To"
        value={toStores ? 'stores' : 'job'}
        onChange={(e) => form.put('stores', e.target.value === 'stores')}
      >
        <option value="stores">stores</option>
        <option value="job">another job</option>
      </ChoiceField>
      {!toStores && (
        <>
          <PickField kind="job" label="Job" required {...form.pick('jobId')} />
          <PickField kind="costCode" label="Cost code" required {...form.pick('costCodeId')} />
        </>
      )}
      <HowMuch item={view.item} numbers={numbersOf(view, pile)} form={form} />
      <TextField label="Reason" required maxLength={120} {...form.text('reason')} />
    </StockSlip>
  );
}
