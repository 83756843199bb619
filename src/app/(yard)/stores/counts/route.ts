import { takeCounts } from '@/actions/stores/counting';
import { inFiles } from '@/server/threads';
import { sheetFile } from '../../../server/sheetFile';

/** A file of what was counted in stores. */
export const POST = sheetFile(
  'keep stores',
  ({ person, bytes }) => inFiles('readCountFile', { person, bytes }),
  (perform, rows, { once }) => perform(takeCounts, { once, rows: [...rows] }),
);
