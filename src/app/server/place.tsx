import 'server-only';
import type { ReactNode } from 'react';
import type { Day } from '@/core/calendar/workdays';
import { NotPermitted } from '@/queries/permit';
import type { Db } from '@/store/connection';
import type { Person } from '@/store/people';
import { Empty, Sheet } from '@/ui/kit/Sheet';
import { here } from './session';
import { clock, yard } from './yard';

export type Params = {
  readonly params: Promise<Record<string, string>>;
  readonly searchParams: Promise<Record<string, string | string[] | undefined>>;
};
export type Asked = {
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

/** What the address asks for, if it is one of the keys that there are. */
export const asked = <T extends object>(of: T, text: string | undefined): keyof T | undefined =>
  text !== undefined && Object.hasOwn(of, text) ? (text as keyof T) : undefined;

/** A page of the yard: for the signed-in person; what is not theirs to see is told plainly. */
export const place = (render: (asked: Asked) => Promise<ReactNode>) =>
  async function Place({ params, searchParams }: Params) {
    const person = await here();
    try {
      const decoded = Object.fromEntries(Object.entries(await params).map(([k, v]) => [k, decodeURIComponent(v)]));
      return await render({
        db: await yard(),
        person,
        today: clock.today(),
        params: decoded,
        query: firsts(await searchParams),
      });
    } catch (error) {
      if (!(error instanceof NotPermitted)) throw error;
      return (
        <Sheet>
          <Empty title={error.message}>
            Your role does not include this. The administrator can change roles under People and company.
          </Empty>
        </Sheet>
      );
    }
  };
