import fc from 'fast-check';
import type { Day } from '@/core/calendar/workdays';
import { guessMapping } from '@/core/quotes/fields';
import { readRows, type Knowledge } from '@/core/quotes/rows';
import { MOST_COLUMNS, MOST_LETTERS, MOST_ROWS, readCsv } from './read';

const known: Knowledge = {
  costCodes: [{ id: 1, code: '01', name: 'Hull' }],
  suppliers: [{ id: 1, name: 'Eelmoor Metals' }],
  items: [],
  mark: '.',
  today: '2026-05-12' as Day,
  chosen: { costCode: {}, supplier: {}, unit: {} },
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

  const HEADINGS = 'Description,Qty,Unit,Cost,Cost code';
  it.each([
    ['a row of a thousand columns', `${HEADINGS}\n${'x,'.repeat(1000)}`, 'file.columns'],
    ['a heading of a million columns', ','.repeat(1_000_000), 'file.columns'],
    ['a million columns in a later row', `${HEADINGS}\na,1,m,1,01\n${','.repeat(1_000_000)}`, 'file.columns'],
    ['a cell of a million letters', `${HEADINGS}\n${'x'.repeat(1_000_000)},1,m,1,01`, 'file.cell'],
    ['a quotation mark that is never closed', `${HEADINGS}\n"${'x'.repeat(1_000_000)}`, 'file.quotes'],
    ['more rows than can be', `${HEADINGS}\n${'a,1,m,1,01\n'.repeat(MOST_ROWS + 1)}`, 'file.rows'],
  ])('%s is refused with a word', (_, text, code) => {
    const read = readCsv(bytes(text));
    expect(read.ok ? 'taken' : read.refusals[0]?.code).toBe(code);
  });

  it('takes as many rows, columns and letters as there may be', () => {
    const wide = ','.repeat(MOST_COLUMNS - 5);
    const long = 'x'.repeat(MOST_LETTERS);
    const read = readCsv(bytes(`${HEADINGS}${wide}\n${long},1,m,1,01\n${'a,1,m,1,01\n'.repeat(MOST_ROWS - 1)}`));
    expect(read.ok && [read.value.rows.length, read.value.headings.length]).toEqual([MOST_ROWS, MOST_COLUMNS]);
  });

  it.each([' ', '0', '1,', '1.', '-', '£ ', '1 ', '\u00a0'])(
    'reads cells of 4,000 letters “%s” to their end',
    (sign) => {
      const cell = sign.repeat(MOST_LETTERS / sign.length);
      const row = [cell, cell, cell, cell, cell].map((c) => `"${c}"`).join();
      const read = readCsv(bytes(`${HEADINGS}\n${`${row}\na,1,m,1,01\n`.repeat(60)}`));
      if (!read.ok) throw new Error(read.refusals[0]?.message);
      const { lines } = readRows(read.value.rows, guessMapping(read.value.headings), known);
      expect(lines).toHaveLength(60);
    },
  );
});
