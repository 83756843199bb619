import { keepFile } from '@/actions/company/files';
import { must, type DemoYard } from './yard';

/** A frame of so many rungs as a drawing: lines in the ASCII form of DXF, group code and value on lines of their own. */
function frameDxf(width: number, height: number, rungs: number): string {
  const line = (x1: number, y1: number, x2: number, y2: number) =>
    [0, 'LINE', 8, 'FRAME', 10, x1, 20, y1, 11, x2, 21, y2].join('\r\n');
  const sides = [line(0, 0, 0, height), line(width, 0, width, height)];
  const across = Array.from({ length: rungs }, (_, k) => ((k + 1) * height) / (rungs + 1));
  return [
    [0, 'SECTION', 2, 'ENTITIES'].join('\r\n'),
    ...sides,
    ...across.map((y) => line(0, y, width, y)),
    [0, 'ENDSEC', 0, 'EOF'].join('\r\n'),
    '',
  ].join('\r\n');
}

/** Drawings kept with jobs: by job, name, revision, and when; a newer one is kept under the same name. */
const DRAWINGS = [
  ['412', 'frames-412.dxf', 'B', -6, frameDxf(900, 2400, 5)],
  ['418', 'pilot-shaft.dxf', 'A', -12, frameDxf(80, 640, 2)],
  ['421', 'ladder-frame.dxf', 'C', -9, frameDxf(420, 1800, 6)],
  ['412', 'frames-412.dxf', 'C', -1, frameDxf(900, 2450, 5)],
] as const;

/** Keeps the drawings of a time before orders go out, or those that came after. */
export async function keepDrawings(yard: DemoYard, when: 'before' | 'after'): Promise<void> {
  for (const [number, name, revision, on, text] of DRAWINGS) {
    if (on < -5 !== (when === 'before')) continue;
    const job = await yard.db('job').where({ number }).first('id');
    const file = {
      about: 'job' as const,
      aboutId: job?.id ?? 0,
      name,
      revision,
      bytes: new TextEncoder().encode(text),
    };
    must(await keepFile(await yard.as('asha', on), { once: yard.once(), ...file }));
  }
}
