'use client';

import { unitOf } from '@/core/quantity/units';
import type { StockView } from '@/queries/stores/stock';
import { NumberField } from '@/ui/kit/NumberField';

type Form = {
  readonly typed: unknown;
  readonly put: (path: never, value: never) => void;
  readonly text: (path: never) => object;
  readonly faultAt: (path: string) => string | undefined;
};

type Props = {
  readonly item: StockView['item'];
  /** Serial numbers to choose from. */
  readonly numbers: readonly string[];
  readonly form: Form;
};

/** How much goes: typed, or, of what has serial numbers, each piece ticked. */
export function HowMuch({ item, numbers, form }: Props) {
  if (item.tracking !== 'serial')
    return (
      <NumberField
        label={`Quantity (${unitOf(item.unit).name})`}
        required
        {...(form.text('quantity' as never) as { value: string })}
      />
    );
  const { ticked } = form.typed as { readonly ticked: readonly string[] };
  const put = (number: string, on: boolean) =>
    form.put('ticked' as never, (on ? [...ticked, number] : ticked.filter((n) => n !== number)) as never);
  const fault = form.faultAt('quantity');
  return (
    <fieldset>
      <legend className="field-label">Serial numbers, {ticked.length} ticked</legend>
      <ul className="max-h-[280px] overflow-y-auto rounded-lg border border-line">
        {numbers.map((n) => (
          <li key={n} className="border-b border-line-2 last:border-0">
            <label className="flex min-h-[36px] items-center gap-3 px-3 max-phone:min-h-[44px]">
              <input type="checkbox" checked={ticked.includes(n)} onChange={(e) => put(n, e.target.checked)} />
              <span className="mono">{n}</span>
            </label>
          </li>
        ))}
        {numbers.length === 0 && <li className="px-3 py-2 text-ink-2">None in stock.</li>}
      </ul>
      {fault !== undefined && (
        <p role="alert" className="field-fault">
          {fault}
        </p>
      )}
    </fieldset>
  );
}
