import { measured } from '@/core/quantity/units';
import { SURPLUS, type Surplus } from '@/core/needs/surplus';
import type { Day } from '@/core/calendar/workdays';
import type { Quantity } from '@/core/quantity/quantity';
import { ChoiceField } from '@/ui/kit/Field';
import { useYard } from '@/ui/frame/YardContext';

type Side = { readonly quantity: Quantity; readonly neededOn: Day | null };

type Change = {
  readonly description: string;
  readonly unit: string;
  /** As it was; null for what is new. */
  readonly was: Side | null;
  /** As it would be; null for what is gone. */
  readonly is: Side | null;
  /** How much of it is drafted or ordered already. */
  readonly bought: Quantity;
};

/** A change that a buy list would take. */
export function ChangeTold({ description, unit, was, is, bought }: Change) {
  const { day } = useYard();
  const told: string[] = [];
  if (was === null && is !== null) told.push(`Added: ${measured(is.quantity, unit)}`);
  if (was !== null && is === null) told.push(`Removed: ${measured(was.quantity, unit)} no longer needed`);
  if (was !== null && is !== null) {
    if (was.quantity !== is.quantity) told.push(`${measured(was.quantity, unit)} → ${measured(is.quantity, unit)}`);
    if (was.neededOn !== is.neededOn) told.push(`needed by ${day(was.neededOn)} → ${day(is.neededOn)}`);
  }
  return (
    <span>
      <b className="font-semibold">{description}</b>{' '}
      {bought > 0 && <span className="tag tag-care">{measured(bought, unit)} drafted or ordered</span>}
      <span className="block text-[13px] text-ink-2">{told.join(' · ')}</span>
    </span>
  );
}

type SurplusFieldProps = {
  readonly value: Surplus | '';
  readonly onChange: (way: Surplus | '') => void;
  readonly className?: string;
};

/** What becomes of what was bought beyond what is needed now. */
export const SurplusField = ({ value, onChange, className = '' }: SurplusFieldProps) => (
  <ChoiceField
    label="Surplus already bought"
    className={className}
    value={value}
    onChange={(e) => onChange(e.target.value as Surplus | '')}
  >
    <option value="">choose…</option>
    {SURPLUS.map((way) => (
      <option key={way} value={way}>
        {way === 'job' ? 'keep on the job' : 'move to stores'}
      </option>
    ))}
  </ChoiceField>
);
