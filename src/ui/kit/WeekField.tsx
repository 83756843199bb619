'use client';

export const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;

type Props = {
  readonly legend: string;
  /** ISO weekdays, 1 for Monday. */
  readonly week: readonly number[];
  readonly onWeek: (week: number[]) => void;
  readonly fault?: string | undefined;
};

/** The days of a week on which one works. */
export const WeekField = ({ legend, week, onWeek, fault }: Props) => (
  <fieldset>
    <legend className="field-label">{legend}</legend>
    <div className="flex flex-wrap gap-x-4 gap-y-1">
      {WEEKDAYS.map((name, k) => (
        <label key={name} className="flex items-center gap-1.5 phone:min-h-6">
          <input
            type="checkbox"
            checked={week.includes(k + 1)}
            onChange={(e) => onWeek(e.target.checked ? [...week, k + 1] : week.filter((d) => d !== k + 1))}
            className="accent-[var(--copper)]"
          />
          {name}
        </label>
      ))}
    </div>
    {fault !== undefined && (
      <p role="alert" className="field-fault">
        {fault}
      </p>
    )}
  </fieldset>
);
