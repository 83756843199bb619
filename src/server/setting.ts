import { join } from 'node:path';
import pino from 'pino';
import type { Clock } from '@/actions/action';
import type { Post } from '@/actions/orders/sending';
import { asDay, type Day } from '@/core/calendar/workdays';
import { deliver } from '@/formats/mail/deliver';

/** What the log may hold back while nothing can be written, in bytes; what is beyond is dropped. */
const MOST_HELD_BACK = 1024 * 1024;
// Whoever logs never waits for it: where the disk is full, the program goes on, and the log with it once there is room.
const written = pino.destination({ dest: 1, sync: false, maxLength: MOST_HELD_BACK });
written.on('error', () => undefined);

export const log = pino({ level: process.env.KETTLE_LOG ?? 'info' }, written);

export const companyFile = (): string => process.env.KETTLE_FILE ?? join(process.cwd(), 'data', 'kettle.sqlite');

export const isDemo = (): boolean => process.env.KETTLE_DEMO === '1';

function localDay(): Day {
  const now = new Date();
  return `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}` as Day;
}

/** Today as it is, or as KETTLE_TODAY sets it; the time of day always runs. */
export const clock: Clock = {
  today: () => asDay(process.env.KETTLE_TODAY ?? '') ?? localDay(),
  now: () => {
    const fixed = asDay(process.env.KETTLE_TODAY ?? '');
    const now = new Date().toISOString();
    return fixed === undefined ? now : fixed + now.slice(10);
  },
};

export const post: Post = (message) => deliver(process.env.KETTLE_SMTP, message);
