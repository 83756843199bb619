import type { Tracking } from '@/core/items/kinds';

/** The sample company's suppliers, items and prices. All of it is made up. */

export const COST_CODES = [
  ['01', 'Hull and structure'],
  ['02', 'Machinery'],
  ['03', 'Electrical'],
  ['04', 'Deck and fittings'],
  ['05', 'Coatings'],
  ['06', 'Subcontract'],
  ['07', 'Hire'],
  ['09', 'Freight and sundries'],
] as const;

export const PEOPLE = [
  { key: 'mina', name: 'Mina Rowe', roles: ['buyer'] },
  { key: 'asha', name: 'Asha Penrose', roles: ['lead'] },
  { key: 'tomas', name: 'Tomas Brae', roles: ['manager'] },
  { key: 'joss', name: 'Joss Fenn', roles: ['storekeeper'] },
  { key: 'ida', name: 'Ida Quill', roles: ['accounts'] },
  { key: 'bram', name: 'Bram Tolley', roles: ['field'] },
  { key: 'wren', name: 'Wren Hale', roles: ['administrator'] },
] as const;

export type PersonKey = (typeof PEOPLE)[number]['key'];

export type DemoSupplier = {
  key: string;
  name: string;
  contact: string;
  currency?: string;
  payment: number;
  lead: number;
  carriage: number;
  freeFrom?: number;
  tax?: string;
  carrier: string;
  address: string;
  terms?: string;
  delivers?: string;
  minimumOrder?: number;
  contacts?: readonly (readonly [name: string, whatFor: string, email: string, phone: string])[];
  addresses?: readonly (readonly [whatFor: string, address: string])[];
  /** Days from today on which it is closed, from and until. */
  closed?: readonly [number, number, string];
};

export const SUPPLIERS: readonly DemoSupplier[] = [
  {
    key: 'eelmoor',
    name: 'Eelmoor Metals',
    contact: 'Sales desk',
    payment: 30,
    lead: 4,
    carriage: 25,
    freeFrom: 400,
    carrier: 'Supplier’s van',
    address: 'Unit 4, Drove Works\nEelmoor\nEM3 4QX',
    delivers: 'Tube, flat, angle, plate and stainless fastenings; cuts to length',
    terms: '2 % off above £2,500 in a month',
    contacts: [['Edda Marsh', 'claims', 'claims@eelmoor.example', '01632 960 114']],
    addresses: [['collecting', 'Trade gate, Drove Works\nEelmoor']],
  },
  {
    key: 'brightsound',
    name: 'Brightsound Marine Electrics',
    contact: 'Trade orders',
    payment: 30,
    lead: 3,
    carriage: 9.5,
    freeFrom: 150,
    carrier: 'Parcel',
    address: '17 Beacon Parade\nBrightsound\nBS7 1LT',
  },
  {
    key: 'pellam',
    name: 'Pellam Bearings',
    contact: 'Order office',
    payment: 30,
    lead: 12,
    carriage: 14,
    carrier: 'Parcel',
    address: 'Race Mill\nPellam\nPL2 8RB',
  },
  {
    key: 'cobb',
    name: 'Cobb & Tiller Chandlery',
    contact: 'Trade counter',
    payment: 14,
    lead: 1,
    carriage: 0,
    carrier: 'We collect',
    address: '2 Staithe Street\nSaltmarsh\nSM1 5HB',
  },
  {
    key: 'oxbow',
    name: 'Oxbow Coatings',
    contact: 'Technical sales',
    payment: 30,
    lead: 5,
    carriage: 35,
    freeFrom: 600,
    carrier: 'ADR carrier',
    address: 'Meander Park\nOxbow\nOX0 6WP',
  },
  {
    key: 'fenny',
    name: 'Fenny Timber',
    contact: 'Yard office',
    payment: 30,
    lead: 8,
    carriage: 60,
    freeFrom: 1200,
    carrier: 'Their lorry',
    address: 'Sluice Road\nFenny Green\nFG8 2TD',
  },
  {
    key: 'aldersey',
    name: 'Aldersey Galvanising',
    contact: 'Works office',
    payment: 30,
    lead: 7,
    carriage: 0,
    carrier: 'We bring and collect',
    address: 'Zinc Lane\nAldersey\nAL5 9GV',
    delivers: 'Hot-dip galvanising up to 6.5 m',
    minimumOrder: 60,
  },
  {
    key: 'kiln',
    name: 'Kiln Lane Polishing',
    contact: 'Workshop',
    payment: 14,
    lead: 6,
    carriage: 0,
    carrier: 'We bring and collect',
    address: '9 Kiln Lane\nSaltmarsh\nSM2 3KP',
  },
  {
    key: 'lindqvist',
    name: 'Lindqvist Motor',
    contact: 'Parts export',
    currency: 'EUR',
    payment: 30,
    lead: 10,
    carriage: 48,
    freeFrom: 900,
    tax: 'VAT 0 %',
    carrier: 'Road express',
    address: 'Slussgatan 11\nNorrvik',
    delivers: 'Engine parts and service kits',
    closed: [70, 84, 'works holiday'],
  },
];

/** number, name, unit, cost code, supplier, price, their number, and what else its supplier wants. */
export type DemoItem = readonly [
  number: string,
  name: string,
  unit: string,
  code: string,
  supplier: string,
  price: number,
  theirs: string,
  more?: {
    pack?: number;
    minimum?: number;
    per?: number;
    unit?: string;
    many?: number;
    breaks?: readonly (readonly [number, number])[];
    stocked?: boolean;
    tax?: string;
  },
];

export const ITEMS: readonly DemoItem[] = [
  [
    'TU-316-38',
    'Tube 316L 38 × 2 mm',
    'MTR',
    '01',
    'eelmoor',
    9.85,
    '88120',
    {
      breaks: [
        [0, 11.2],
        [40, 9.85],
        [120, 9.1],
      ],
    },
  ],
  ['FB-316-40', 'Flat bar 316L 40 × 6', 'MTR', '01', 'eelmoor', 7.4, '88417', { pack: 5, stocked: true }],
  ['PL-5083-5', 'Plate 5083 H111 5 mm', 'XST', '01', 'eelmoor', 318, '90551'],
  ['PL-S275-6', 'Plate S275 6 mm', 'XST', '01', 'eelmoor', 164, '90206'],
  ['AN-50-50', 'Angle S275 50 × 50 × 6', 'MTR', '01', 'eelmoor', 6.15, '84410', { pack: 6, stocked: true }],
  ['RB-316-12', 'Round bar 316 12 mm', 'MTR', '01', 'eelmoor', 4.3, '88012'],
  ['PU-BG-24', 'Bilge pump 24 V, serial', 'C62', '03', 'brightsound', 214, 'BP24-110'],
  [
    'CA-2-25',
    'Tinned cable 2 × 2.5 mm²',
    'MTR',
    '03',
    'brightsound',
    2.95,
    'TC2-25-R60',
    { unit: 'XRL', many: 60, per: 1, breaks: [[0, 177]], pack: 1, stocked: true },
  ],
  ['CA-3-15', 'Tinned cable 3 × 1.5 mm²', 'MTR', '03', 'brightsound', 2.4, 'TC3-15'],
  ['GL-M20', 'Cable gland M20', 'C62', '03', 'brightsound', 1.8, 'CG20-N', { pack: 12, stocked: true }],
  ['NL-MH-360', 'Masthead light, all-round', 'C62', '03', 'brightsound', 96.5, 'NL360W'],
  ['NL-SIDE', 'Side light pair', 'PR', '03', 'brightsound', 142, 'NLSP12'],
  ['BR-DP-16', 'Breaker, double pole 16 A', 'C62', '03', 'brightsound', 18.4, 'DP16C'],
  ['HE-HYD-9', 'Cabin heater, hydronic 9 kW', 'C62', '02', 'brightsound', 1180, 'HH9'],
  ['SE-ST-60', 'Stern seal kit 60 mm', 'SET', '02', 'pellam', 386, 'SSK60'],
  [
    'BE-32012',
    'Taper roller 32012 X',
    'C62',
    '02',
    'pellam',
    41.2,
    '32012X',
    {
      breaks: [
        [0, 44],
        [4, 41.2],
      ],
    },
  ],
  ['BE-6208', 'Ball bearing 6208 2RS', 'C62', '02', 'pellam', 14.6, '62082RS'],
  ['SE-OIL-70', 'Oil seal 70 × 90 × 10', 'C62', '02', 'pellam', 9.8, 'OS709010'],
  ['CP-FLEX-4', 'Flexible shaft coupling 4 in', 'C62', '02', 'pellam', 428, 'FSC4'],
  ['HO-FUEL-10', 'Fuel hose 10 mm, marine', 'MTR', '02', 'cobb', 8, 'FH10'],
  ['HO-EX-90', 'Exhaust hose 90 mm', 'MTR', '02', 'cobb', 31.5, 'EH90'],
  ['CL-316-100', 'Hose clamp 316 90–110', 'C62', '04', 'cobb', 3.6, 'HC100', { stocked: true }],
  ['WI-PA-1', 'Wiper arm, pantograph', 'C62', '04', 'cobb', 0, ''],
  ['CLEAT-250', 'Mooring cleat 250 mm', 'C62', '04', 'cobb', 46, 'MC250'],
  ['SHK-12', 'Bow shackle 12 mm', 'C62', '04', 'cobb', 7.2, 'BS12'],
  ['ROPE-16', 'Polyester rope 16 mm', 'MTR', '04', 'cobb', 2.1, 'PR16'],
  ['SEAL-MS', 'Marine sealant 310 ml', 'C62', '04', 'cobb', 8.9, 'MS310', { stocked: true }],
  ['CO-EP-20', 'Epoxy primer 20 l', 'XCA', '05', 'oxbow', 212, 'EP20'],
  ['CO-AF-20', 'Antifouling, hard, 20 l', 'XCA', '05', 'oxbow', 498, 'AFH20'],
  ['CO-TC-5', 'Topcoat white 5 l', 'XCA', '05', 'oxbow', 84, 'TCW5'],
  ['CO-TH-5', 'Thinner 5 l', 'XCA', '05', 'oxbow', 26.5, 'TH5'],
  ['TI-OAK', 'Green oak, sawn', 'MTQ', '01', 'fenny', 1480, 'OAK-S'],
  ['TI-IROKO', 'Iroko, planed', 'MTQ', '01', 'fenny', 2350, 'IRO-P'],
  ['TI-PLY-18', 'Marine plywood 18 mm', 'XST', '01', 'fenny', 96, 'MP18'],
  ['SC-GALV', 'Hot-dip galvanising', 'KGM', '06', 'aldersey', 1.35, ''],
  ['SC-POL', 'Electropolishing, frame', 'C62', '06', 'kiln', 74, ''],
  ['EN-INJ', 'Injector, reconditioned', 'C62', '02', 'lindqvist', 268, '3803654R'],
  ['EN-TB-KIT', 'Turbo gasket kit', 'SET', '02', 'lindqvist', 121, '876312'],
  ['EN-IMP', 'Raw water impeller kit', 'SET', '02', 'lindqvist', 64.5, '21951356'],
  ['EN-GBX-CL', 'Gearbox clutch pack', 'SET', '02', 'lindqvist', 742, '3580012'],
  ['AN-ZN-5', 'Hull anode zinc 5 kg', 'C62', '05', 'cobb', 32, 'ZA5'],
  ['TREAD-GRP', 'GRP ladder tread 400', 'C62', '04', 'eelmoor', 12.4, 'GT400', { stocked: true }],
  ['BO-A4-830', 'Bolt A4 M8 × 30', 'C62', '04', 'cobb', 0.38, 'A4M830', { pack: 50, stocked: true }],
];

/** What the yard makes itself: number, name, unit, cost code. */
/** Who else sells a part, for how much, and in how many working days where that is not as usual. */
export const ALSO_SOLD: readonly (readonly [
  item: string,
  supplier: string,
  price: number,
  theirs: string,
  lead?: number,
])[] = [
  ['BO-A4-830', 'eelmoor', 0.35, '66830'],
  ['SHK-12', 'eelmoor', 7.1, '66120'],
  ['CA-2-25', 'cobb', 3.4, 'TC25'],
  ['BE-32012', 'eelmoor', 48.9, 'on request', 6],
];

/** Suppliers whose prices change: in how many days, and by how many hundredths. */
export const TO_COME: readonly (readonly [supplier: string, days: number, percent: number])[] = [['oxbow', 20, 4]];

export const MADE = [
  ['LADDER-24', 'Boarding ladder 2.4 m', 'C62', '04'],
  ['LAD-STR', 'Stringer pair', 'C62', '01'],
] as const;

export type DemoBomLine = {
  readonly item?: string;
  readonly words?: string;
  readonly gotBy?: 'made' | 'labour';
  readonly quantity: number;
  readonly unit: string;
  readonly scrap?: number;
  /** Working days after the start of the work; before its end when below zero. */
  readonly needed?: number;
  readonly price?: number;
};

/** Bills of materials, the lowest level first. */
export const BILLS: readonly {
  readonly item: string;
  readonly making: number;
  readonly lines: readonly DemoBomLine[];
}[] = [
  {
    item: 'LAD-STR',
    making: 6,
    lines: [
      { item: 'TU-316-38', quantity: 4.8, unit: 'MTR', scrap: 3 },
      { item: 'RB-316-12', quantity: 2, unit: 'MTR' },
    ],
  },
  {
    item: 'LADDER-24',
    making: 20,
    lines: [
      { item: 'LAD-STR', gotBy: 'made', quantity: 1, unit: 'C62', needed: 8 },
      { item: 'TREAD-GRP', quantity: 6, unit: 'C62', needed: 7 },
      { item: 'FB-316-40', quantity: 1.4, unit: 'MTR', needed: 2 },
      { item: 'BO-A4-830', quantity: 24, unit: 'C62', needed: 10 },
      { item: 'SHK-12', quantity: 2, unit: 'C62', needed: 17 },
      { item: 'SC-POL', quantity: 1, unit: 'C62', needed: -14 },
      { words: 'Welding, 3 h each', gotBy: 'labour', quantity: 3, unit: 'HUR', price: 38 },
    ],
  },
];

/** What is followed by its numbers, and how those read. */
export const TRACKED: readonly (readonly [item: string, tracking: Tracking, pattern: string])[] = [
  ['PU-BG-24', 'serial', 'SN-9999'],
  ['EN-GBX-CL', 'serial', 'GC-9999'],
  ['CO-EP-20', 'lot', ''],
];

/** Bins of the yard. */
export const BINS: readonly string[] = ['A-01', 'A-02', 'A-03', 'B-01', 'B-02', 'Rack 1', 'Rack 2'];

/** What lies in the yard's stores: in which bin, how much, what all of it cost, and how much of it is to be kept. */
export const STOCK: readonly (readonly [item: string, bin: string, quantity: number, value: number, keep?: number])[] =
  [
    ['TU-316-38', 'Rack 1', 6, 52.8],
    ['TREAD-GRP', 'A-01', 12, 129.6],
    ['BO-A4-830', 'A-02', 300, 96],
    ['CA-2-25', 'Rack 2', 18, 53.1],
    ['GL-M20', 'A-03', 14, 25.2, 36],
    ['CL-316-100', 'A-03', 22, 79.2],
    ['SEAL-MS', 'B-01', 9, 80.1, 12],
    ['AN-50-50', 'Rack 1', 11, 67.65],
  ];
