'use client';

import dynamic from 'next/dynamic';
import { CalendarDays } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useId, useState, type KeyboardEvent } from 'react';
import { readTypedDay, type Towards } from '@/core/calendar/typed';
import { asDay, type Day } from '@/core/calendar/workdays';
import { useYard } from '../frame/YardContext';
import { Framed, described, type Frame } from './Field';

const Month = dynamic(() => import('./Month'), { ssr: false });

type Props = Frame & {
  /** A day as ISO text, nothing, or what was typed and is no day. */
  readonly value: string;
  readonly onDay: (day: string) => void;
  /** Whether a day without its year is meant ahead or back. */
  readonly towards?: Towards;
  /** The first day that can be met, which the calendar shows. */
  readonly earliest?: Day | undefined;
  readonly disabled?: boolean | undefined;
  readonly required?: boolean;
  readonly name?: string;
  /** In a cell of a sheet it begins with what was typed there. */
  readonly inCell?: { readonly begin: string | undefined };
};

/** A day, typed in short or chosen from a calendar; it counts when the field is left or Enter is pressed. */
export function DateField({
  value,
  onDay,
  towards = 'ahead',
  earliest,
  disabled,
  required,
  name,
  inCell,
  ...frame
}: Props) {
  const { label, fault, hint, hideLabel, className } = frame;
  const id = useId();
  const yard = useYard();
  const [typed, setTyped] = useState(inCell?.begin);
  const [open, setOpen] = useState(false);
  const day = asDay(value);
  const read = (text: string) => readTypedDay(text, yard.today, yard.calendar, towards);
  const reading = typed === undefined ? undefined : read(typed);
  const settle = () => {
    if (typed === undefined || reading === undefined) return;
    setTyped(undefined);
    onDay(reading.ok ? (reading.value ?? '') : typed);
  };
  const wrong = typed === undefined && value !== '' && day === undefined ? read(value) : undefined;
  const told = (d: Day) => `${yard.day(d)}, ${yard.far(d)}`;
  const readAs = reading?.ok === true && reading.value !== null ? told(reading.value) : undefined;
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter') settle();
    if (event.key === 'Escape' && typed !== undefined) {
      event.stopPropagation();
      event.nativeEvent.stopImmediatePropagation();
      setTyped(undefined);
    }
    if (event.key === 'ArrowDown') {
      event.preventDefault();
      settle();
      setOpen(true);
    }
  };
  const problem = fault ?? (wrong?.ok === false ? wrong.refusals[0]?.message : undefined);
  return (
    <Framed id={id} label={label} fault={problem} hint={readAs ?? hint} hideLabel={hideLabel} className={className}>
      <div className="relative">
        <input
          id={id}
          name={name}
          className={`field pr-8 ${frame.small === true ? 'field-small' : ''} ${inCell === undefined ? '' : 'field-cell'}`}
          autoFocus={inCell !== undefined}
          autoComplete="off"
          value={typed ?? (day === undefined ? value : yard.day(day))}
          placeholder={day === undefined ? 'e.g. 15, fri, +5w' : ''}
          onChange={(e) => setTyped(e.target.value)}
          onFocus={(e) => typed === undefined && e.target.select()}
          onBlur={settle}
          onKeyDown={onKeyDown}
          disabled={disabled}
          required={required}
          {...described(id, problem)}
        />
        <Popover.Root open={open} onOpenChange={setOpen}>
          <Popover.Trigger
            type="button"
            tabIndex={-1}
            disabled={disabled}
            aria-label={`${label}, calendar`}
            className="absolute inset-y-0 right-0 grid w-8 place-items-center text-ink-2 hover:text-ink disabled:opacity-50"
          >
            <CalendarDays size={15} aria-hidden />
          </Popover.Trigger>
          <Popover.Portal>
            <Popover.Content
              align="end"
              sideOffset={4}
              className="z-[60] rounded-lg border border-line bg-glaze p-3 shadow-xl"
              aria-label={`${label}, calendar`}
            >
              <Month
                chosen={day}
                earliest={earliest}
                onChoose={(chosen) => {
                  setOpen(false);
                  onDay(chosen);
                }}
              />
            </Popover.Content>
          </Popover.Portal>
        </Popover.Root>
      </div>
    </Framed>
  );
}
