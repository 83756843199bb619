import 'server-only';
import type { ReactNode } from 'react';
import type { Day } from '@/core/calendar/workdays';
import { NotPermitted } from '@/queries/permit';
import { snapshot, type Db } from '@/store/db';
import type { Person } from '@/store/people';
import { Empty, Sheet } from '@/ui/kit/Sheet';
import { here } from './session';
import { clock } from '@/server/setting';
import { readers } from '@/server/readers';

export type Params = {
  readonly params: Promise<Record<string, string>>;
  readonly searchParams: Promise<Record<string, string | string[] | undefined>>;
};
export type PageRequest = {
  readonly db: Db;
  readonly person: Person;
  readonly today: Day;
  readonly params: Readonly<Record<string, string>>;
  readonly query: Readonly<Record<string, string>>;
};

const firsts = (all: Record<string, string | string[] | undefined>) =>
  Object.fromEntries(
    Object.entries(all).flatMap(([k, v]) => (v === undefined ? [] : [[k, Array.isArray(v) ? (v[0] ?? '') : v]])),
  );

/**
 * A page of the yard: for the signed-in person, with all its figures of one moment; what is not theirs to see is told
 * plainly. All that is read has to be awaited in `render`: the moment ends with it.
 */
export const yardPage = (render: (asked: PageRequest) => Promise<ReactNode>) =>
  async function Place({ params, searchParams }: Params) {
    const person = await here();
    try {
      const decoded = Object.fromEntries(Object.entries(await params).map(([k, v]) => [k, decodeURIComponent(v)]));
      const query = firsts(await searchParams);
      const today = clock.today();
      return await snapshot(await readers(), (db) => render({ db, person, today, params: decoded, query }));
    } catch (error) {
      if (!(error instanceof NotPermitted)) throw error;
      return (
        <Sheet>
          <Empty title={error.message}>
            Your role doesn’t include this. Ask your administrator, who can change roles under People.
          </Empty>
        </Sheet>
      );
    }
  };
