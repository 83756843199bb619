'use client';

import { X } from 'lucide-react';
import type { Day } from '@/core/calendar/workdays';
import { dayOffFields, holidaysForm } from '@/core/records/company';
import type { DayOff } from '@/store/tables';
import { DateField } from '@/ui/kit/DateField';
import { Faults, TextField } from '@/ui/kit/Field';
import { TakeOut } from '@/ui/kit/TakeOut';
import { useAct } from '@/ui/acting/useAct';
import { useActForm } from '@/ui/acting/useActForm';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../actions';

/** The days on which nobody works: typed in, or taken from the public holidays of the company's country. */
export function DaysOff({ off, today }: { off: readonly DayOff[]; today: Day }) {
  const { day } = useYard();
  const add = useActForm({
    read: () => dayOffFields,
    start: { day: '', name: '' },
    act: acts.addDayOff,
    input: (read, once) => ({ once, ...read }),
    onDone: (_, restart) => restart(),
  });
  const remove = useAct(acts.removeDayOff);
  const take = useActForm({
    read: () => holidaysForm,
    start: { year: today.slice(0, 4) },
    act: acts.takeHolidays,
    input: (read, once) => ({ once, ...read }),
    said: ({ days }) => `${days} public holidays added`,
  });
  const others = [...add.refusals, ...remove.refusals, ...take.refusals];
  return (
    <>
      <h2 className="mb-1 text-[16px]">Non-working days</h2>
      <p className="mb-2">
        <TakeOut list="days-off" />
      </p>
      <form
        className="flex items-end gap-2"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          take.save();
        }}
      >
        <TextField label="Public holidays of" inputMode="numeric" className="w-[120px]" {...take.text('year')} />
        <button type="submit" className="btn btn-plain" disabled={take.busy}>
          Add public holidays
        </button>
      </form>
      <form
        className="mt-3 grid grid-cols-[1fr_auto] items-end gap-2"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          add.save();
        }}
      >
        <DateField label="Non-working day" className="col-span-2" {...add.day('day')} />
        <TextField label="Reason" {...add.text('name')} />
        <button type="submit" className="btn btn-plain" disabled={add.busy}>
          Add
        </button>
      </form>
      <div className="mt-2">
        <Faults messages={others.map((r) => r.message)} />
      </div>
      {off.length === 0 && <p className="mt-2 text-ink-2">No non-working days yet.</p>}
      <ul aria-label="Non-working days" className="mt-2">
        {off.map((d) => (
          <li key={d.day} className="flex items-baseline gap-2 border-b border-line-2 py-1">
            <span className="w-[120px] whitespace-nowrap">{day(d.day)}</span>
            <span className="min-w-0 flex-1 text-ink-2">{d.name}</span>
            <button
              type="button"
              aria-label={`Make ${day(d.day)} a working day`}
              disabled={remove.busy}
              onClick={() => void remove.run({ day: d.day })}
              className="rounded p-0.5 text-ink-2 hover:text-brick"
            >
              <X size={14} />
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}
