'use client';

import { useState } from 'react';
import type { ItemThing, Thing } from '@/queries/things';
import { Faults, TextField } from '@/ui/kit/Field';
import { Slip } from '@/ui/kit/Slip';
import { UnitField } from '@/ui/kit/UnitField';
import { useKey } from '@/ui/keys';
import { useAct, useOnce } from '@/ui/useAct';
import { useYard } from '@/ui/YardContext';
import { saveItem, saveSupplier } from '../acts';

/** What is made in passing, called as it was typed where it was not found. */
export type Making = { readonly kind: 'item' | 'supplier'; readonly typed: string };

type Props = {
  readonly making: Making;
  readonly onClose: () => void;
  readonly onItem?: (item: ItemThing) => void;
  readonly onSupplier?: (supplier: Thing) => void;
};

/** A part or a supplier made where it is wanted, with no more than it needs; the rest is said on its own page. */
export function InPassing({ making, onClose, onItem, onSupplier }: Props) {
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
  onMade: (item: ItemThing) => void;
}) {
  const [text, setText] = useState({
    number: isNumber(typed) ? typed : '',
    name: isNumber(typed) ? '' : typed,
    unit: 'C62',
  });
  const once = useOnce();
  const { run, busy, refusals, faultAt } = useAct(saveItem, {
    said: () => `Part ${text.number} is there`,
    onDone: ({ id }) => onMade({ id, ...text, detail: '', costCode: null, supplier: null, price: null }),
  });
  const save = () => void run({ once: once.key(), id: null, version: 0, ...text });
  return (
    <Making title="A new part" busy={busy} words="Add the part" onSave={save} onClose={onClose} refusals={refusals}>
      <TextField
        label="Number"
        autoFocus={text.number === ''}
        value={text.number}
        onChange={(e) => setText({ ...text, number: e.target.value })}
        fault={faultAt('number')}
      />
      <TextField
        label="Name"
        autoFocus={text.number !== ''}
        value={text.name}
        onChange={(e) => setText({ ...text, name: e.target.value })}
        fault={faultAt('name')}
      />
      <UnitField label="Unit it is used in" value={text.unit} onUnit={(unit) => setText({ ...text, unit })} />
    </Making>
  );
}

function NewSupplier({ typed, onClose, onMade }: { typed: string; onClose: () => void; onMade: (it: Thing) => void }) {
  const { currency } = useYard();
  const [text, setText] = useState({ name: typed, email: '', currency });
  const once = useOnce();
  const { run, busy, refusals, faultAt } = useAct(saveSupplier, {
    said: () => `${text.name} is there`,
    onDone: ({ id }) => onMade({ id, number: '', name: text.name, detail: '' }),
  });
  const save = () => void run({ once: once.key(), id: null, version: 0, ...text });
  const bind = (name: keyof typeof text) => ({
    value: text[name],
    onChange: (e: { target: { value: string } }) => setText({ ...text, [name]: e.target.value }),
    fault: faultAt(name),
  });
  return (
    <Making
      title="A new supplier"
      busy={busy}
      words="Add the supplier"
      onSave={save}
      onClose={onClose}
      refusals={refusals}
    >
      <TextField label="Name" {...bind('name')} />
      <TextField label="E-mail for orders" type="email" autoFocus {...bind('email')} />
      <TextField label="Currency" {...bind('currency')} />
    </Making>
  );
}

type MakingProps = {
  readonly title: string;
  readonly words: string;
  readonly busy: boolean;
  readonly refusals: readonly { readonly message: string; readonly field?: string }[];
  readonly onSave: () => void;
  readonly onClose: () => void;
  readonly children: React.ReactNode;
};

function Making({ title, words, busy, refusals, onSave, onClose, children }: MakingProps) {
  useKey('Ctrl+Enter', words, onSave, !busy);
  return (
    <Slip
      open
      onClose={onClose}
      title={title}
      foot={
        <div className="grid gap-2">
          <Faults messages={refusals.filter((r) => !r.field).map((r) => r.message)} />
          <button type="button" disabled={busy} onClick={onSave} className="btn btn-main justify-self-end">
            {words} <span className="kbd">^↵</span>
          </button>
        </div>
      }
    >
      <div className="grid gap-3">{children}</div>
    </Slip>
  );
}
