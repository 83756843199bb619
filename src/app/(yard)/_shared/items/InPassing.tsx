'use client';

import { ITEM_KIND_NAMES, ITEM_KINDS, type ItemKind } from '@/core/items/kinds';
import { itemForm, type ItemText } from '@/core/records/item';
import { supplierFields } from '@/core/records/supplier';
import type { Refusal } from '@/core/result';
import type { ItemChoice, Choice } from '@/queries/frame/choices';
import { ChoiceField, Faults, TextField } from '@/ui/kit/Field';
import { PickField } from '@/ui/kit/PickField';
import { Slip } from '@/ui/kit/Slip';
import { UnitField } from '@/ui/kit/UnitField';
import { useKey } from '@/ui/frame/keys';
import { useActForm } from '@/ui/acting/useActForm';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';

/** What is made in passing, called as it was typed where it was not found. */
export type Making = { readonly kind: 'item' | 'supplier'; readonly typed: string };

type Props = {
  readonly making: Making;
  readonly onClose: () => void;
  readonly onItem?: (item: ItemChoice) => void;
  readonly onSupplier?: (supplier: Choice) => void;
};

/** A part or a supplier made where it is wanted, with no more than it needs; the rest is said on its own page. */
export default function InPassing({ making, onClose, onItem, onSupplier }: Props) {
  return making.kind === 'item' ? (
    <NewItem
      typed={making.typed}
      onClose={onClose}
      onMade={(item) => {
        onClose();
        onItem?.(item);
      }}
    />
  ) : (
    <NewSupplier
      typed={making.typed}
      onClose={onClose}
      onMade={(supplier) => {
        onClose();
        onSupplier?.(supplier);
      }}
    />
  );
}

/** A number is one word with a figure in it; anything else is a name. */
const isNumber = (typed: string) => !/\s/.test(typed) && /\d/.test(typed);

function NewItem({
  typed,
  onClose,
  onMade,
}: {
  typed: string;
  onClose: () => void;
  onMade: (item: ItemChoice) => void;
}) {
  const number = isNumber(typed) ? typed : '';
  const form = useActForm({
    read: () => itemForm.pick({ number: true, name: true, unit: true, kind: true, costCodeId: true }),
    start: {
      number,
      name: isNumber(typed) ? '' : typed,
      unit: 'C62',
      kind: 'part' as ItemKind,
      costCodeId: null as ItemText['costCodeId'],
    },
    act: acts.saveItem,
    input: (read, once) => ({ once, id: null, version: 0, ...read }),
    said: (_, made) => `Item ${made.number} added`,
    onDone: ({ id }) => {
      const { number: own, name, unit, costCodeId: code } = form.typed;
      const costCode = code === null ? null : { ...code, detail: '' };
      onMade({ id, number: own, name, unit, detail: '', costCode, supplier: null, price: null, made: false });
    },
  });
  return (
    <Making title="New item" words="Add item" form={form} onClose={onClose}>
      <TextField label="Number" autoFocus={number === ''} {...form.text('number')} />
      <TextField label="Name" autoFocus={number !== ''} {...form.text('name')} />
      <UnitField label="Stock unit" {...form.unit('unit')} />
      <ChoiceField label="Type" {...form.text('kind')}>
        {ITEM_KINDS.map((kind) => (
          <option key={kind} value={kind}>
            {ITEM_KIND_NAMES[kind]}
          </option>
        ))}
      </ChoiceField>
      <PickField kind="costCode" label="Default cost code" placeholder="none" {...form.pick('costCodeId')} />
    </Making>
  );
}

function NewSupplier({ typed, onClose, onMade }: { typed: string; onClose: () => void; onMade: (it: Choice) => void }) {
  const { currency } = useYard();
  const form = useActForm({
    read: () => supplierFields.pick({ name: true, email: true, currency: true }),
    start: { name: typed, email: '', currency },
    act: acts.saveSupplier,
    input: (read, once) => ({ once, id: null, version: 0, ...read }),
    said: (_, made) => `${made.name} added`,
    onDone: ({ id }) => onMade({ id, number: '', name: form.typed.name, detail: '' }),
  });
  return (
    <Making title="New supplier" words="Add supplier" form={form} onClose={onClose}>
      <TextField label="Name" {...form.text('name')} />
      <TextField label="Order email" type="email" autoFocus {...form.text('email')} />
      <TextField label="Currency" {...form.text('currency')} />
    </Making>
  );
}

type MakingProps = {
  readonly title: string;
  readonly words: string;
  readonly form: { readonly busy: boolean; readonly refusals: readonly Refusal[]; readonly save: () => void };
  readonly onClose: () => void;
  readonly children: React.ReactNode;
};

function Making({ title, words, form, onClose, children }: MakingProps) {
  useKey('Ctrl+Enter', words, form.save, !form.busy);
  return (
    <Slip
      open
      onClose={onClose}
      title={title}
      foot={
        <div className="grid gap-2">
          <Faults messages={form.refusals.map((r) => r.message)} />
          <button type="button" disabled={form.busy} onClick={form.save} className="btn btn-main justify-self-end">
            {words}{' '}
            <span className="kbd" aria-hidden>
              Ctrl ↵
            </span>
          </button>
        </div>
      }
    >
      <div className="grid gap-3">{children}</div>
    </Slip>
  );
}
