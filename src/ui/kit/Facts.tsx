import { Fragment, type ReactNode } from 'react';

/** What is known of a thing, by name; what is not known is left out. */
export function Facts({ facts }: { facts: readonly (readonly [name: string, value: ReactNode])[] }) {
  return (
    <dl className="grid max-w-[820px] grid-cols-[110px_1fr] gap-x-4 gap-y-1 sm:grid-cols-[110px_1fr_110px_1fr]">
      {facts
        .filter(([, value]) => value !== '' && value !== null)
        .map(([name, value]) => (
          <Fragment key={name}>
            <dt className="text-ink-2 first-letter:uppercase">{name}</dt>
            <dd className="whitespace-pre-line">{value}</dd>
          </Fragment>
        ))}
    </dl>
  );
}
