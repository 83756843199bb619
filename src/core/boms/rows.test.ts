import fc from 'fast-check';
import { quantity } from '../quantity/quantity';
import { levelOf, readBoms, type FileRead } from './rows';

const q = (n: number) => quantity(Math.round(n * 10_000));
const item = (id: number, number: string, unit = 'C62', made = false) => ({
  id,
  number,
  name: `Name of ${number}`,
  unit,
  made,
});
const LADDER = item(1, 'LADDER');
const known = {
  items: [
    LADDER,
    item(2, 'STR'),
    item(3, 'TUBE', 'MTR'),
    item(4, 'TREAD'),
    item(5, 'CAP'),
    item(6, 'BOX', 'C62', true),
  ],
  mark: '.' as const,
};
const read = (csv: string): FileRead => {
  const [head = '', ...rows] = csv.trim().split('\n');
  const cells = (row: string) => row.split(',').map((c) => c.trim());
  return readBoms(
    cells(head),
    rows.map((r, k) => ({ row: k + 2, cells: cells(r) })),
    LADDER,
    known,
  );
};
const told = ({ boms }: FileRead) =>
  boms.map((b) => [b.item.number, ...b.lines.map((l) => `${l.quantity / 10_000} ${l.description} ${l.gotBy}`)]);
const faults = (r: FileRead) => r.problems.map((p) => `${p.row} ${p.weight}: ${p.message}`);

const BY_LEVEL = `Level,Part no.,Description,Qty,Unit,Scrap %,Needed
0,LADDER,,1,,,
1,STR,,2,,,8
2,TUBE,,2.4,m,3,
2,CAP,,2,,,
1,TREAD,,6,,,-2
1,,Welding,3,h,,`;

describe('a file of BOMs', () => {
  it('is read by levels', () => {
    const file = read(BY_LEVEL);
    expect(told(file)).toEqual([
      ['LADDER', '2 Name of STR made', '6 Name of TREAD bought', '3 Welding bought'],
      ['STR', '2.4 Name of TUBE bought', '2 Name of CAP bought'],
    ]);
    expect(file.problems).toEqual([]);
    expect(file.boms[1]?.lines[0]).toMatchObject({ itemId: 3, quantity: q(2.4), unit: 'MTR', scrap: 300 });
    expect(file.boms[0]?.lines[1]?.offset).toEqual({ days: 2, from: 'end' });
  });
  it('is the same by parents', () => {
    const file = read(`Parent,Item,Description,Quantity,UoM,Lost,Offset
LADDER,STR,,2,,,8
STR,TUBE,,2.4,m,3 %,
STR,CAP,,2,,,
LADDER,TREAD,,6,,,-2
LADDER,,Welding,3,h,,`);
    expect([file.style, read(BY_LEVEL).style]).toEqual(['parents', 'levels']);
    expect(file.boms).toEqual(read(BY_LEVEL).boms);
  });
  it('may tell an assembly again in another branch, if it is the same', () => {
    const twice = `Level,Item,Qty\n1,STR,1\n2,CAP,2\n2,CAP,2\n1,TREAD,1\n2,STR,3\n3,CAP,2\n3,CAP,2`;
    expect(told(read(twice))).toEqual([
      ['LADDER', '1 Name of STR made', '1 Name of TREAD made'],
      ['STR', '2 Name of CAP bought', '2 Name of CAP bought'],
      ['TREAD', '3 Name of STR made'],
    ]);
    expect(faults(read(twice.replace(/2$/, '5')))).toEqual([
      '7 stop: STR has different components here than from row 3. One item has one BOM.',
    ]);
  });
  it.each([
    [
      'no level and no parent',
      'Item,Qty\nTUBE,1',
      '1 stop: The file needs columns for level or parent, for the item and for the quantity. Add them and choose the file again.',
    ],
    ['a level that is none', 'Level,Item,Qty\ndeep,TUBE,1', '2 stop: “deep” isn’t a level. Type it like 0, 1 or 2.'],
    [
      'a level too deep',
      'Level,Item,Qty\n1,STR,1\n3,TUBE,1',
      '3 stop: Level 3 follows level 1: the row that it belongs to is missing.',
    ],
    [
      'another item on top',
      'Level,Item,Qty\n0,TREAD,1',
      '2 stop: TREAD isn’t LADDER, whose BOM this is. Import it on its own item.',
    ],
    [
      'an unknown parent',
      'Parent,Item,Qty\nFRAME,TUBE,1',
      '2 stop: FRAME has components but isn’t in your items. Add it first.',
    ],
    [
      'an unknown part',
      'Level,Item,Qty\n1,BOLT,4',
      '2 care: Item BOLT isn’t in your items. The line is imported as text.',
    ],
    ['nothing of it', 'Level,Item,Qty\n1,TUBE,0', '2 stop: Enter a quantity above zero.'],
    ['less than nothing', 'Level,Item,Qty\n1,TUBE,-2', '2 stop: Enter a quantity above zero.'],
    ['no number', 'Level,Item,Qty\n1,TUBE,some', '2 stop: “some” isn’t a number.'],
    [
      'an unknown unit',
      'Level,Item,Qty,Unit\n1,TUBE,1,furlong',
      '2 stop: “furlong” isn’t a unit in use. Type one like m, kg, h or piece.',
    ],
    [
      'a unit that does not fit',
      'Level,Item,Qty,Unit\n1,TUBE,1,kg',
      '2 stop: TUBE is held in metres; kilograms can’t be converted. Enter it in metres.',
    ],
    ['no part', 'Level,Item,Description,Qty\n1,,,1', '2 stop: Enter an item number or a description.'],
    ['a kind that is none', 'Level,Item,Qty,Kind\n1,TUBE,1,magic', '2 stop: “magic”: enter bought, made or labour.'],
    ['less than nothing lost', 'Level,Item,Qty,Scrap\n1,TUBE,1,-3', '2 stop: “-3” isn’t a scrap rate. Type it like 5.'],
    [
      'days that are none',
      'Level,Item,Qty,Days\n1,TUBE,1,soon',
      '2 stop: “soon” isn’t a number of days. Type 3 for 3 days after the start, -2 for 2 before the end.',
    ],
  ])('says what is wrong: %s', (_, csv, message) => expect(faults(read(csv))).toEqual([message]));
  it.each([
    ['2', 2],
    ['..2', 2],
    [' 1', 1],
    ['1.3.2', 3],
    ['x', undefined],
    ['', undefined],
  ])('takes the level “%s” for %s', (text, level) => expect(levelOf(text)).toBe(level));
  it('never throws, whatever stands in the cells', () =>
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.oneof(fc.string(), fc.constantFrom('1', '2', 'LADDER', 'TUBE', '=1')), { maxLength: 8 }), {
          maxLength: 6,
        }),
        (rows) => {
          const file = readBoms(
            ['Level', 'Item', 'Description', 'Qty', 'Unit', 'Scrap', 'Offset', 'Type'],
            rows.map((cells, k) => ({ row: k + 2, cells })),
            LADDER,
            known,
          );
          expect(file.boms.flatMap((b) => b.lines).every((l) => l.quantity > 0)).toBe(true);
        },
      ),
    ));
});
