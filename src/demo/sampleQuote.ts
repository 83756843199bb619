import { plusWorkdays, type Calendar, type Day } from '@/core/calendar/workdays';
import { quoteCsv } from './seed';

/** A quote file that a newcomer can bring in at once: known items, and lines that are only words. */
export function sampleQuote(today: Day, calendar: Calendar): string {
  const day = (offset: number) => plusWorkdays(today, offset, calendar);
  const known = quoteCsv(
    {
      allowed: { '09': 60 },
      lines: [
        ['SE-ST-60', 1, 386, 560, 18],
        ['BE-32012', 2, 41.2, 62, 18],
        ['TU-316-38', 6, 9.85, 15, 12],
        ['HO-EX-90', 4, 31.5, 46, 14],
        ['SEAL-MS', 6, 8.9, 13, 12],
        ['AN-ZN-5', 4, 32, 46, 20],
      ],
    },
    day,
  );
  const words = [
    `,"Cutlass bearing, 60 mm bore",1,,88,130,02,Pellam Bearings,${day(18)},bought`,
    `,Shaft polishing,2,h,48,70,06,Kiln Lane Polishing,${day(16)},bought`,
    `,"Strip, survey and refit",14,h,42,68,02,,,labour`,
  ];
  return [known, ...words, ''].join('\r\n');
}
