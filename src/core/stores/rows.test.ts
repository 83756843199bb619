import { readCounts, type Known } from './rows';

const KNOWN: Known = {
  items: [
    { id: 1, number: 'TU-38', name: 'Tube', unit: 'MTR', kind: 'material', tracking: 'none', numberPattern: '' },
    { id: 2, number: 'BO-M8', name: 'Bolt', unit: 'C62', kind: 'part', tracking: 'none', numberPattern: '' },
    { id: 3, number: 'WELD', name: 'Welding', unit: 'HUR', kind: 'service', tracking: 'none', numberPattern: '' },
    { id: 4, number: 'PU-24', name: 'Pump', unit: 'C62', kind: 'part', tracking: 'serial', numberPattern: 'SN-9999' },
    { id: 5, number: 'EP-20', name: 'Paint', unit: 'C62', kind: 'material', tracking: 'lot', numberPattern: '' },
  ],
  places: [
    {
      ...{ id: 7, name: 'Main store' },
      bins: [
        { id: 71, name: 'A-01' },
        { id: 72, name: 'A-02' },
      ],
    },
    { id: 8, name: 'Bay 2', bins: [] },
  ],
  mark: '.',
  currency: 'GBP',
};
const read = (headings: string, ...lines: string[]) => {
  const rows = lines.map((l, k) => ({ row: k + 2, cells: l.split(';') }));
  const result = readCounts(headings.split(';'), rows, KNOWN);
  if (!result.ok) throw new Error(result.refusals[0]?.message);
  return result.value;
};

describe('a file of counts', () => {
  it('says what lies where, what it is worth, what is kept and why', () =>
    expect(
      read(
        'Item number;Place;Quantity;Value;Level to keep;Reason',
        'tu-38;bay 2;12.5;110.25;20;found behind the rack',
        'BO-M8;;300;;;',
      ).rows,
    ).toEqual([
      {
        row: 2,
        itemId: 1,
        placeId: 8,
        parts: [{ binId: undefined, quantity: 125_000, numbers: [], values: [] }],
        value: 11_025,
        keep: 200_000,
        reason: 'found behind the rack',
      },
      {
        row: 3,
        itemId: 2,
        placeId: 7,
        parts: [{ binId: undefined, quantity: 3_000_000, numbers: [], values: [] }],
        value: null,
        keep: null,
        reason: 'opening count from a file',
      },
    ]));

  it('takes a row for each serial number and lot, and leaves out what is not right of them', () => {
    const { rows, left } = read(
      'Item;Serial number or lot;Use by;Quantity;Value',
      'PU-24;SN-0001;;1;100',
      'PU-24;SN-0002;;;120',
      'EP-20;L7;2027-03-31;6;60',
      'EP-20;L8;;4;',
      'PU-24;SN-0002;;1;',
      'PU-24;SN-3;;1;',
      'PU-24;SN-0004;;2;',
      'PU-24;;;3;',
      'BO-M8;SN-1;;3;',
      'EP-20;L9;soon;1;',
    );
    expect(
      rows.map((r) => [
        r.itemId,
        r.parts[0]?.quantity,
        r.value,
        r.parts[0]?.numbers.map((n) => [n.number, n.expiresOn, n.quantity]),
        r.parts[0]?.values,
      ]),
    ).toEqual([
      [
        4,
        20_000,
        22_000,
        [
          ['SN-0001', null, 10_000],
          ['SN-0002', null, 10_000],
        ],
        [10_000, 12_000],
      ],
      [
        5,
        100_000,
        null,
        [
          ['L7', '2027-03-31', 60_000],
          ['L8', null, 40_000],
        ],
        [],
      ],
    ]);
    expect(left.map((l) => l.row)).toEqual([6, 7, 8, 9, 10, 11]);
  });

  it('takes what one costs for what all are worth, and another unit for its own', () =>
    expect(
      read('Item;Counted;Unit;Cost each', 'BO-M8;300;;0.32', 'TU-38;12500;mm;0.0088').rows.map((r) => [
        r.parts[0]?.quantity,
        r.value,
      ]),
    ).toEqual([
      [3_000_000, 9600],
      [125_000, 11_000],
    ]));

  it('says bin by bin what lies at a place, and not the whole place beside one of its bins', () => {
    const { rows, left } = read(
      'Item;Place;Bin;Serial number;Quantity;Value;Level',
      'BO-M8;;a-01;;100;10;500',
      'BO-M8;Main store;A-02;;200;20;',
      'BO-M8;;A-02;;1;;',
      'BO-M8;;;;5;;',
      'PU-24;;A-01;SN-0001;1;;',
      'PU-24;;A-02;SN-0002;1;;',
      'PU-24;;A-01;SN-0003;1;;',
      'PU-24;;A-02;SN-0001;1;;',
      'TU-38;Bay 2;A-01;;1;;',
      'EP-20;;A-01;L1;6;;',
      'EP-20;;A-02;L1;4;;',
      'EP-20;;A-02;L1;4;;',
    );
    expect(rows.map((r) => [r.itemId, r.value, r.keep, ...r.parts.map((p) => [p.binId, p.quantity / 10_000])])).toEqual(
      [
        [2, 3000, 5_000_000, [71, 100], [72, 200]],
        [4, null, null, [71, 2], [72, 1]],
        [5, null, null, [71, 6], [72, 4]],
      ],
    );
    expect(left.map((l) => `${l.row} ${l.message}`)).toEqual([
      '4 BO-M8 at that location is already in row 2.',
      '5 BO-M8 at that location is already in row 2.',
      '9 PU-24 at that location is already in row 6.',
      '10 Bay 2 has no bin “A-01”.',
      '13 EP-20 at that location is already in row 11.',
    ]);
  });

  it('may say levels alone', () =>
    expect(read('Number;Level', 'BO-M8;100').rows[0]).toMatchObject({ parts: [], value: null, keep: 1_000_000 }));

  it('says of each row that it leaves out why', () =>
    expect(
      read(
        'Item;Place;Count;Unit;Value',
        'NO-1;;1;;',
        ';;1;;',
        'WELD;;1;;',
        'BO-M8;Attic;1;;',
        'BO-M8;;-1;;',
        'BO-M8;;1.5;;',
        'BO-M8;;;;',
        'BO-M8;;1;kg;',
        'BO-M8;;1;;lots',
        'BO-M8;;1;;',
        'BO-M8;main store;2;;',
      ).left.map((l) => `${l.row} ${l.message}`),
    ).toEqual([
      '2 Item NO-1 isn’t in your items.',
      '3 Enter an item number.',
      '4 WELD isn’t a material or part, so it isn’t stocked.',
      '5 Location “Attic” doesn’t exist.',
      '6 “-1” isn’t a quantity. Type it like 12.',
      '7 Bolt: a piece can’t be divided. Enter a whole number, not 1.5.',
      '8 This row has no count and no minimum.',
      '9 BO-M8 is held in pieces; “kg” can’t be converted. Enter it in pieces.',
      '10 “lots” isn’t an amount. Type it like 12.50.',
      '12 BO-M8 at that location is already in row 11.',
    ]));

  it('needs the columns it is read by', () => expect(() => read('Name;Colour', 'a;b')).toThrow('item number'));
});
