import { useId, type ComponentProps, type ReactNode } from 'react';

export type Frame = {
  readonly label: string;
  readonly fault?: string | undefined;
  readonly hint?: string | undefined;
  readonly hideLabel?: boolean;
  /** In a row of filters. */
  readonly small?: boolean;
  readonly className?: string;
};

export function Framed({
  id,
  label,
  fault,
  hint,
  hideLabel,
  className,
  children,
}: Frame & { id: string; children: ReactNode }) {
  return (
    <div className={className}>
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'field-label'}>
        {label}
      </label>
      {children}
      {hint !== undefined && fault === undefined && <p className="mt-1 text-[12.5px] text-ink-2">{hint}</p>}
      {fault !== undefined && (
        <p id={`${id}-fault`} role="alert" className="field-fault">
          {fault}
        </p>
      )}
    </div>
  );
}

export const described = (id: string, fault: string | undefined) =>
  fault === undefined ? {} : { 'aria-invalid': true as const, 'aria-describedby': `${id}-fault` };

/** A line to type in, with its label above and its fault below. */
export function TextField({
  label,
  fault,
  hint,
  hideLabel,
  className,
  inputClass = '',
  ...input
}: Frame & Omit<ComponentProps<'input'>, 'className'> & { inputClass?: string }) {
  const id = useId();
  return (
    <Framed id={id} label={label} fault={fault} hint={hint} hideLabel={hideLabel} className={className}>
      <input id={id} className={`field ${inputClass}`} {...described(id, fault)} {...input} />
    </Framed>
  );
}

export function AreaField({
  label,
  fault,
  hint,
  hideLabel,
  className,
  ...input
}: Frame & Omit<ComponentProps<'textarea'>, 'className'>) {
  const id = useId();
  return (
    <Framed id={id} label={label} fault={fault} hint={hint} hideLabel={hideLabel} className={className}>
      <textarea id={id} className="field" {...described(id, fault)} {...input} />
    </Framed>
  );
}

export function ChoiceField({
  label,
  fault,
  hint,
  hideLabel,
  small,
  className,
  children,
  ...input
}: Frame & Omit<ComponentProps<'select'>, 'className'>) {
  const id = useId();
  return (
    <Framed id={id} label={label} fault={fault} hint={hint} hideLabel={hideLabel} className={className}>
      <select id={id} className={`field ${small === true ? 'field-small' : ''}`} {...described(id, fault)} {...input}>
        {children}
      </select>
    </Framed>
  );
}

/** Faults that belong to no field, told where the next action is. */
export function Faults({ messages }: { messages: readonly string[] }) {
  if (messages.length === 0) return null;
  return (
    <div role="alert" className="rounded-lg border border-brick bg-brick-wash px-3 py-2 text-brick">
      {messages.slice(0, 6).map((m) => (
        <p key={m}>{m}</p>
      ))}
      {messages.length > 6 && <p>and {messages.length - 6} more</p>}
    </div>
  );
}
