'use client';

import { X } from 'lucide-react';
import { useState } from 'react';
import type { Day } from '@/core/calendar/workdays';
import type { DayOff } from '@/store/tables';
import { DateField } from '@/ui/kit/DateField';
import { Faults, TextField } from '@/ui/kit/Field';
import { useAct, useOnce } from '@/ui/useAct';
import { useYard } from '@/ui/YardContext';
import { addDayOff, removeDayOff, takeHolidays } from '../../acts';

/** The days on which nobody works: typed in, or taken from the public holidays of the company's country. */
export function DaysOff({ off, today }: { off: readonly DayOff[]; today: Day }) {
  const { day } = useYard();
  const [text, setText] = useState({ day: '', name: '' });
  const [year, setYear] = useState(today.slice(0, 4));
  const [once, onceTaken] = [useOnce(), useOnce()];
  const add = useAct(addDayOff, {
    onDone: () => {
      once.renew();
      setText({ day: '', name: '' });
    },
  });
  const remove = useAct(removeDayOff);
  const take = useAct(takeHolidays, {
    said: ({ days }) => `${days} public holidays are days off now`,
    onDone: onceTaken.renew,
  });
  const others = [...add.refusals, ...remove.refusals, ...take.refusals].filter(
    (r) => r.field !== 'name' && r.field !== 'day',
  );
  return (
    <>
      <h2 className="mb-1 text-[16px]">Days off</h2>
      <form
        className="flex items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          void take.run({ once: onceTaken.key(), year: Number(year) });
        }}
      >
        <TextField
          label="Public holidays of"
          inputMode="numeric"
          className="w-[120px]"
          value={year}
          onChange={(e) => setYear(e.target.value)}
        />
        <button type="submit" className="btn btn-plain" disabled={take.busy}>
          Take them in
        </button>
      </form>
      <form
        className="mt-3 grid grid-cols-[1fr_auto] items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          void add.run({ once: once.key(), ...text });
        }}
      >
        <DateField
          label="A day off"
          className="col-span-2"
          value={text.day}
          onDay={(day) => setText((now) => ({ ...now, day }))}
          fault={add.faultAt('day')}
        />
        <TextField
          label="Why"
          value={text.name}
          onChange={(e) => setText((now) => ({ ...now, name: e.target.value }))}
          fault={add.faultAt('name')}
        />
        <button type="submit" className="btn btn-plain" disabled={add.busy}>
          Add
        </button>
      </form>
      <div className="mt-2">
        <Faults messages={others.map((r) => r.message)} />
      </div>
      {off.length === 0 && <p className="mt-2 text-ink-2">Nobody has entered a day off yet.</p>}
      <ul aria-label="Days off" className="mt-2">
        {off.map((d) => (
          <li key={d.day} className="flex items-baseline gap-2 border-b border-line-2 py-1">
            <span className="w-[120px] whitespace-nowrap">{day(d.day)}</span>
            <span className="min-w-0 flex-1 text-ink-2">{d.name}</span>
            <button
              type="button"
              aria-label={`Work on ${day(d.day)}`}
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
