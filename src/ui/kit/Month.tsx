'use client';

import { DayPicker } from 'react-day-picker';
import { asDay, isWorkday, type Day } from '@/core/calendar/workdays';
import { locale, WAYS } from '@/core/locale/locale';
import { useYard } from '../frame/YardContext';

const dateOf = (day: Day): Date => new Date(Number(day.slice(0, 4)), Number(day.slice(5, 7)) - 1, Number(day.slice(8)));
const dayOf = (date: Date): Day =>
  asDay(
    `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`,
  ) as Day;

type Props = {
  readonly chosen: Day | undefined;
  readonly earliest: Day | undefined;
  readonly onChoose: (day: Day) => void;
};

const cell = 'grid size-9 place-items-center rounded-md hover:bg-glaze-2 max-phone:size-11';

/** A month to choose a day from: days off are grey, and what comes before the earliest day that can be met is struck. */
export default function Month({ chosen, earliest, onChoose }: Props) {
  const { today, calendar, day: told } = useYard();
  const { language, firstDay } = locale();
  const shown = chosen ?? earliest ?? today;
  return (
    <>
      <DayPicker
        mode="single"
        autoFocus
        selected={chosen && dateOf(chosen)}
        defaultMonth={dateOf(shown)}
        today={dateOf(today)}
        onSelect={(date) => onChoose(date === undefined ? (chosen ?? today) : dayOf(date))}
        startMonth={new Date(2000, 0)}
        endMonth={new Date(2100, 11)}
        locale={WAYS[language].words}
        weekStartsOn={firstDay === 7 ? 0 : 1}
        modifiers={{
          off: (date) => !isWorkday(dayOf(date), calendar),
          early: (date) => earliest !== undefined && dayOf(date) < earliest,
        }}
        modifiersClassNames={{ off: 'text-ink-2 bg-glaze-2', early: 'line-through decoration-brick' }}
        classNames={{
          root: 'relative text-[13.5px]',
          month_caption: 'flex h-9 items-center font-semibold',
          nav: 'absolute top-0 right-0 flex',
          button_previous: cell,
          button_next: cell,
          chevron: 'size-4 fill-current',
          weekday: 'h-8 text-[12px] font-normal text-ink-2',
          day: 'rounded-md p-0 text-center',
          day_button: cell,
          selected: 'bg-copper text-on-copper',
          today: 'font-bold underline underline-offset-4',
          outside: 'opacity-60',
        }}
      />
      {earliest !== undefined && <p className="mt-2 text-[12.5px] text-ink-2">Earliest delivery {told(earliest)}</p>}
    </>
  );
}
