import fc from 'fast-check';
import type { Day } from '@/core/calendar/workdays';
import { guessMapping, readRows, type Knowledge } from '@/core/quotes/rows';
import { readCsv } from './read';

const known: Knowledge = {
  costCodes: [{ id: 1, code: '01', name: 'Hull' }],
  suppliers: [{ id: 1, name: 'Eelmoor Metals' }],
  items: [],
  mark: '.',
  today: '2026-05-12' as Day,
  chosen: { costCode: {}, supplier: {} },
};

const bytes = (text: string) => new TextEncoder().encode(text);

describe('hostile files', () => {
  it('never break the reader, whatever their bytes', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 2000 }), (file) => {
        const read = readCsv(file as Uint8Array<ArrayBuffer>);
        expect(read.ok ? read.value.rows.length > 0 : read.refusals.length > 0).toBe(true);
      }),
    );
  });

  it('never break the rows, whatever stands between their commas', () => {
    const cell = fc.oneof(
      fc.string({ maxLength: 20 }),
      fc.constantFrom(
        '"',
        '""',
        ',',
        ';',
        '\n',
        '\r\n',
        '\t',
        '=1+1',
        '@SUM(A1)',
        '-2+3',
        '99999999999999999999',
        '1e308',
        '\u202e',
        '\0',
        '01',
        '5',
        'm',
      ),
    );
    fc.assert(
      fc.property(fc.array(fc.array(cell, { minLength: 1, maxLength: 8 }), { minLength: 1, maxLength: 8 }), (rows) => {
        const text = ['Description,Qty,Unit,Cost,Cost code', ...rows.map((r) => r.join(','))].join('\n');
        const read = readCsv(bytes(text));
        if (!read.ok) return;
        const { lines, problems } = readRows(read.value.rows, guessMapping(read.value.headings), known);
        const stopped = new Set(problems.filter((p) => p.weight === 'stop').map((p) => p.row));
        expect(lines.length + stopped.size).toBe(read.value.rows.length);
        for (const line of lines) {
          expect(line.quantity).toBeGreaterThan(0);
          expect(line.cost).toBeGreaterThanOrEqual(0);
        }
      }),
      { numRuns: 300 },
    );
  });

  it('takes formulas as plain words, and never as numbers', () => {
    const read = readCsv(bytes('Description,Qty,Unit,Cost,Cost code\n=HYPERLINK("http://x"),=2+2,m,1,01'));
    if (!read.ok) throw new Error('It can be read.');
    const { lines, problems } = readRows(read.value.rows, guessMapping(read.value.headings), known);
    expect(lines).toEqual([]);
    expect(problems.map((p) => p.field)).toContain('quantity');
  });

  it('copes with a row of a thousand columns and a cell of a million characters', () => {
    expect(readCsv(bytes(`a,b\n${'x,'.repeat(1000)}`)).ok).toBe(true);
    const read = readCsv(bytes(`Description,Qty,Unit,Cost,Cost code\n${'x'.repeat(1_000_000)},1,m,1,01`));
    if (!read.ok) throw new Error('It can be read.');
    const { problems } = readRows(read.value.rows, guessMapping(read.value.headings), known);
    expect(problems.map((p) => p.message)).toEqual(['The description is longer than 200 characters.']);
  });
});
