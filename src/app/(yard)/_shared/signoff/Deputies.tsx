'use client';

import { deputyForm } from '@/core/records/signoff';
import type { DeputyView } from '@/queries/signoff/ladder';
import type { Named } from '@/core/records/typed';
import { DateField } from '@/ui/kit/DateField';
import { Faults } from '@/ui/kit/Field';
import { PickField } from '@/ui/kit/PickField';
import { useAct } from '@/ui/acting/useAct';
import { useActForm } from '@/ui/acting/useActForm';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';

type Props = {
  readonly deputies: readonly DeputyView[];
  /** For whom: oneself, or everybody for who manages people. */
  readonly me?: Named;
  readonly everybody?: boolean;
};

/** Who signs for whom while they are away. */
export function Deputies({ deputies, me, everybody = false }: Props) {
  const { day } = useYard();
  const drop = useAct(acts.dropDeputy, { said: () => 'Ended' });
  const form = useActForm({
    read: () => deputyForm,
    start: { personId: me ?? null, deputyId: null, fromDay: '', toDay: '' },
    act: acts.nameDeputy,
    input: (read, once) => ({ once, ...read }),
    said: () => 'Named',
    onDone: (_, restart) => restart(),
  });
  return (
    <section aria-labelledby="deputies" className="mb-6">
      <h2 id="deputies" className="text-[16px]">
        Deputies
      </h2>
      <p className="mb-2 text-[12.5px] text-ink-2">
        {everybody ? 'Who signs orders for whom, and when.' : 'Who signs orders for you while you are away.'}
      </p>
      <ul>
        {deputies.map((d) => (
          <li key={d.id} className="flex items-baseline justify-between gap-2 border-b border-line-2 py-1">
            <span>
              <b className="font-semibold">{d.deputy}</b>
              {everybody && <> for {d.person}</>}{' '}
              <span className="text-ink-2">
                {d.fromDay === d.toDay ? day(d.fromDay) : `${day(d.fromDay)} to ${day(d.toDay)}`}
              </span>
            </span>
            <button
              type="button"
              className="step"
              disabled={drop.busy}
              aria-label={`${d.deputy} no longer signs for ${d.person}`}
              onClick={() => void drop.run({ id: d.id })}
            >
              End
            </button>
          </li>
        ))}
      </ul>
      <div className="mt-2 grid gap-2">
        {everybody && <PickField kind="person" label="Away" {...form.pick('personId')} />}
        <PickField kind="person" label="Deputy" {...form.pick('deputyId')} />
        <div className="grid grid-cols-2 gap-2">
          <DateField label="From" {...form.day('fromDay')} />
          <DateField label="To" {...form.day('toDay')} />
        </div>
        <Faults messages={form.refusals.map((r) => r.message)} />
        <button type="button" className="btn btn-plain justify-self-start" disabled={form.busy} onClick={form.save}>
          Add deputy
        </button>
      </div>
    </section>
  );
}
