'use client';

import { z } from 'zod';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { NeedLine } from '@/queries/buying/needLine';
import type { BuyListLine } from '@/queries/buying/buyList';
import { needForm, type NeedText } from '@/core/records/need';
import { ChoiceField, Faults } from '@/ui/kit/Field';
import { Press } from '@/ui/kit/Press';
import { Slip } from '@/ui/kit/Slip';
import { useKey } from '@/ui/frame/keys';
import { Tags } from '@/ui/kit/Tags';
import { useActForm } from '@/ui/acting/useActForm';
import { WorkedOn } from '@/ui/jobs/AssetContext';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';
import { AtHand } from './AtHand';
import { Became } from './Became';
import { NeedFields } from './NeedFields';
import { SellersList, type PickedLine } from '../items/SellersList';

/** What stands in the form of a need. */
const startOf = (need: NeedLine | BuyListLine, currency: string): NeedText => ({
  ...z.encode(needForm(currency).pick({ description: true, quantity: true, unit: true, price: true }), need),
  neededOn: need.neededOn ?? '',
  item: null,
  costCodeId: { id: need.costCodeId, number: need.code, name: need.codeName },
  supplierId: need.supplierId === null ? null : { id: need.supplierId, number: '', name: need.supplier ?? '' },
  surplus: '',
});

type Props = {
  readonly need: NeedLine | BuyListLine;
  /** What is picked with it, where it is looked at among picks. */
  readonly picks?: readonly PickedLine[];
  readonly onClose: () => void;
};

/** A line of a buy list, for a quick look and a change. */
export default function NeedSlip({ need, picks, onClose }: Props) {
  const { currency, may } = useYard();
  const form = useActForm({
    read: () => needForm(currency),
    start: startOf(need, currency),
    keep: `need ${need.id}, version ${need.version}`,
    act: acts.changeNeed,
    input: ({ item: _, surplus, ...read }) => ({
      needId: need.id,
      version: need.version,
      ...read,
      ...(surplus === '' ? {} : { surplus }),
    }),
    said: () => 'Line changed',
    onDone: onClose,
  });
  const { busy, clash } = form;
  const mayChange = may('change buy lists');
  useKey('Ctrl+Enter', 'Save line', form.save, mayChange && !busy);
  const surplus = form.text('surplus');
  return (
    <Slip
      open
      onClose={onClose}
      title={need.description}
      detail={
        <>
          <span className="mono font-bold">{need.job}</span> {need.code} {need.codeName} · {formatQuantity(need.open)}{' '}
          {unitOf(need.unit).short} to buy
        </>
      }
      foot={
        mayChange && (
          <div className="grid gap-2">
            <Faults
              messages={
                clash ? [`${clash.message} Close this and reopen the line.`] : form.refusals.map((r) => r.message)
              }
            />
            <div className="flex items-center justify-end gap-3">
              {form.kept && (
                <button type="button" className="step mr-auto" onClick={() => form.restart()}>
                  Unsaved entries from last time. Discard
                </button>
              )}
              <Press type="button" disabled={busy} onClick={form.save} className="btn btn-main">
                Save line{' '}
                <span className="kbd" aria-hidden>
                  Ctrl ↵
                </span>
              </Press>
            </div>
          </div>
        )
      }
    >
      {need.tags.length > 0 && (
        <div className="mb-3">
          <Tags tags={need.tags} />
        </div>
      )}
      {need.workedOn !== '' && <p className="mb-3 text-ink-2">for {need.workedOn}</p>}
      <WorkedOn words={need.workedOn}>
        <NeedFields form={form} disabled={!mayChange} />
      </WorkedOn>
      {(surplus.fault !== undefined || surplus.value !== '') && (
        <ChoiceField label="Surplus" className="mt-3" {...surplus}>
          <option value="">choose…</option>
          <option value="job">keep on the job</option>
          <option value="stores">move to stores</option>
        </ChoiceField>
      )}
      {need.itemId !== null && may('see stores') && (
        <div className="mt-3">
          <AtHand itemId={need.itemId} />
        </div>
      )}
      {may('see orders') && <Became needId={need.id} onDone={onClose} />}
      {may('see money') && need.itemId !== null && <SellersList need={need} picks={picks} onDone={onClose} />}
    </Slip>
  );
}
