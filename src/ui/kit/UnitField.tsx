'use client';

import { findUnit, UNITS, unitOf, type Unit } from '@/core/quantity/units';
import type { Choice } from '@/queries/frame/choices';
import type { Frame } from './Field';
import type { Yard } from '../frame/YardContext';
import { PickField } from './PickField';

const thingOf = (unit: Unit): Choice => ({ id: UNITS.indexOf(unit), number: unit.short, name: unit.name, detail: '' });

/** Units for what is typed: the one that is written so, then those that begin so and are offered. */
export function unitsFor(typed: string, { unitsUnused }: Pick<Yard, 'unitsUnused'>): Choice[] {
  const text = typed.trim().toLowerCase();
  const same = findUnit(text);
  const begins = UNITS.filter((u) => u !== same && [u.name, u.short, ...u.also].some((w) => w.startsWith(text)));
  const offered = begins.filter((u) => !unitsUnused.includes(u.code));
  return [...(same === undefined ? [] : [same]), ...offered].map(thingOf);
}

type Props = Frame & {
  readonly value: string | undefined;
  readonly onUnit: (code: string) => void;
  readonly disabled?: boolean | undefined;
};

/** A unit of measure, as one types: m, kg, sheet. */
export function UnitField({ value, onUnit, ...field }: Props) {
  const unit = value === undefined ? undefined : unitOf(value);
  return (
    <PickField
      kind={unitsFor}
      value={unit === undefined ? null : { id: UNITS.indexOf(unit), number: '', name: unit.name }}
      placeholder="choose"
      onPick={(thing) => {
        const picked = thing === null ? undefined : UNITS[thing.id];
        if (picked !== undefined) onUnit(picked.code);
      }}
      {...field}
    />
  );
}
