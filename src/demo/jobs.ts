import type { PersonKey } from './catalogue';

/** item number, quantity, our cost, the customer's price, working days from today until it is needed. */
export type DemoLine = readonly [item: string, quantity: number, cost: number, price: number, needed: number];

export type DemoJob = {
  number: string;
  name: string;
  short: string;
  kind: 'contract' | 'repair' | 'make';
  customer: string;
  lead: PersonKey;
  site: string;
  /** Working days from today. */
  starts: number;
  due: number;
  dueWords: string;
  /** Working day on which the customer said yes; none for a quote that is open or lost. */
  won?: number;
  wonBy?: string;
  quoteState?: 'withCustomer' | 'lost';
  complete?: boolean;
  /** Allowed beyond the lines, by cost code: carriage under 09, contingency under the others. */
  allowed: Readonly<Record<string, number>>;
  lines: readonly DemoLine[];
};

export const JOBS: readonly DemoJob[] = [
  {
    number: '405', name: 'Trawl winch refurbishment, Turnstone', short: 'Turnstone winch', kind: 'repair', customer: 'Tern Island Fisheries', lead: 'asha', site: 'Workshop 2', starts: -58, due: -20, dueWords: 'Returned', won: -57, wonBy: 'Elsa Marrin', complete: true, allowed: { '09': 60, '02': 20 },
    lines: [['BE-6208', 6, 14.6, 22, -48], ['SE-OIL-70', 4, 9.8, 15, -48], ['PL-S275-6', 1, 164, 240, -46], ['CO-TC-5', 2, 84, 120, -40], ['SHK-12', 8, 7.2, 11, -44]],
  },
  {
    number: '408', name: 'Antifouling and anodes, harbour launch Knot', short: 'Knot antifouling', kind: 'contract', customer: 'Saltmarsh Harbour Board', lead: 'asha', site: 'Slip 1', starts: -45, due: -12, dueWords: 'Back in water', won: -46, wonBy: 'Jory Venn', complete: true, allowed: { '09': 40, '05': 50 },
    lines: [['CO-EP-20', 1, 212, 300, -36], ['CO-AF-20', 2, 498, 690, -35], ['AN-ZN-5', 10, 32, 46, -35], ['CO-TH-5', 2, 26.5, 38, -36]],
  },
  {
    number: '412', name: 'Survey launch Dunlin, winter refit', short: 'Dunlin winter refit', kind: 'contract', customer: 'Estuary Survey Trust', lead: 'asha', site: 'Bay 3', starts: -32, due: 24, dueWords: 'Due back in water', won: -34, wonBy: 'Hester Lowe', allowed: { '09': 220, '01': 420, '02': 380, '04': 310, '05': 240, '06': 90 },
    lines: [
      ['PL-5083-5', 6, 318, 455, 4], ['TU-316-38', 24, 9.85, 15, -6], ['RB-316-12', 30, 4.3, 7, -6], ['TI-PLY-18', 10, 96, 140, 6], ['TI-IROKO', 0.45, 2350, 3300, 9],
      ['SE-ST-60', 1, 386, 560, 9], ['CP-FLEX-4', 2, 428, 610, -2], ['EN-INJ', 6, 231, 340, 4], ['EN-IMP', 2, 55.6, 84, 4], ['HO-FUEL-10', 24, 8, 12, 5], ['HO-EX-90', 9, 31.5, 46, 5], ['EN-TB-KIT', 1, 104.3, 150, 6],
      ['PU-BG-24', 3, 168, 250, 3], ['CA-2-25', 150, 2.95, 4.4, 3], ['CA-3-15', 90, 2.4, 3.6, 3], ['BR-DP-16', 18, 17.5, 27, 3], ['NL-MH-360', 1, 96.5, 140, 10], ['NL-SIDE', 1, 142, 205, 10], ['GL-M20', 40, 1.6, 2.5, 3],
      ['CLEAT-250', 6, 46, 68, 14], ['WI-PA-1', 2, 0, 180, 15], ['SEAL-MS', 18, 8.9, 13, 4], ['CL-316-100', 32, 3.6, 5.5, 5],
      ['CO-EP-20', 3, 212, 300, 8], ['CO-AF-20', 3, 498, 690, 16], ['CO-TC-5', 6, 84, 120, 12], ['CO-TH-5', 4, 26.5, 38, 8],
      ['SC-GALV', 240, 1.35, 2, 10],
    ],
  },
  {
    number: '415', name: 'Fuel tank renewal, tug Whimbrel', short: 'Whimbrel fuel tank', kind: 'repair', customer: 'Greyhaven Dredging', lead: 'asha', site: 'Bay 1', starts: -3, due: 12, dueWords: 'Ready for trials', won: -22, wonBy: 'Olly Tarn', allowed: { '09': 90, '01': 60, '05': 10 },
    lines: [['PL-S275-6', 5, 164, 240, -4], ['AN-50-50', 30, 6.15, 9.5, -4], ['HO-FUEL-10', 18, 8, 12, -2], ['CL-316-100', 24, 3.6, 5.5, -2], ['CO-EP-20', 1, 212, 300, -1]],
  },
  {
    number: '418', name: 'Gearbox overhaul, pilot cutter Redshank', short: 'Redshank gearbox', kind: 'repair', customer: 'Saltmarsh Pilots', lead: 'asha', site: 'Workshop 1', starts: -16, due: 18, dueWords: 'Back on station', won: -18, wonBy: 'Captain Ness Hallow', allowed: { '09': 90, '03': 30 },
    lines: [['BE-32012', 4, 40, 62, 9], ['BE-6208', 6, 14.6, 22, 6], ['SE-OIL-70', 8, 9.8, 15, 6], ['EN-GBX-CL', 2, 610, 890, -1], ['CP-FLEX-4', 1, 428, 610, 8], ['GL-M20', 24, 1.8, 2.7, 10], ['CO-TC-5', 1, 84, 120, 12]],
  },
  {
    number: '419', name: 'Davit pair, pilot boat Sandpiper', short: 'Sandpiper davits', kind: 'make', customer: 'Saltmarsh Pilots', lead: 'asha', site: 'Workshop 2', starts: 2, due: 30, dueWords: 'Fitted', won: -9, wonBy: 'Captain Ness Hallow', allowed: { '09': 110, '01': 90, '06': 60 },
    lines: [['PL-S275-6', 3, 164, 240, 4], ['TU-316-38', 36, 9.85, 15, 5], ['RB-316-12', 20, 4.3, 7, 5], ['SHK-12', 12, 7.2, 11, 14], ['ROPE-16', 80, 2.1, 3.2, 16], ['SC-GALV', 310, 1.35, 2, 15], ['BE-6208', 8, 14.6, 22, 15]],
  },
  {
    number: '420', name: 'Deckhouse windows, crew boat Godwit', short: 'Godwit windows', kind: 'contract', customer: 'Marrow Sound Ferries', lead: 'asha', site: '', starts: 5, due: 25, dueWords: 'Due', quoteState: 'lost', allowed: { '09': 40 },
    lines: [['SEAL-MS', 24, 8.9, 13, 8], ['TI-PLY-18', 4, 96, 140, 8]],
  },
  {
    number: '421', name: 'Boarding ladders ×10', short: 'Boarding ladders ×10', kind: 'make', customer: 'Saltmarsh Harbour Board', lead: 'asha', site: 'Workshop 2', starts: 3, due: 32, dueWords: 'Delivered', won: -8, wonBy: 'Jory Venn', allowed: { '09': 60, '01': 40, '06': 80 },
    lines: [['TU-316-38', 48, 9.85, 15, 5], ['FB-316-40', 14, 7.4, 11, 5], ['TREAD-GRP', 60, 12.4, 18.5, 10], ['SC-POL', 10, 74, 110, 18], ['SHK-12', 20, 7.2, 11, 20]],
  },
  {
    number: '422', name: 'Rubbing strake renewal, ferry Plover', short: 'Plover strakes', kind: 'contract', customer: 'Marrow Sound Ferries', lead: 'asha', site: 'Slip 2', starts: 6, due: 28, dueWords: 'Back in service', won: -3, wonBy: 'Ina Corrow', allowed: { '09': 140, '01': 260 },
    lines: [['TI-OAK', 1.8, 1480, 2100, 9], ['RB-316-12', 60, 4.3, 7, 9], ['SEAL-MS', 36, 8.9, 13, 10], ['CO-TC-5', 4, 84, 120, 16], ['PL-S275-6', 2, 164, 240, 12]],
  },
  {
    number: '423', name: 'Navigation lights rewire, dredger Curlew', short: 'Curlew nav lights', kind: 'repair', customer: 'Greyhaven Dredging', lead: 'asha', site: 'Afloat, berth 4', starts: -5, due: 8, dueWords: 'Due', won: -11, wonBy: 'Olly Tarn', allowed: { '09': 30 },
    lines: [['NL-MH-360', 3, 96.5, 140, -1], ['NL-SIDE', 2, 142, 205, -1], ['CA-3-15', 120, 2.4, 3.6, -2], ['GL-M20', 36, 1.6, 2.5, -2], ['BR-DP-16', 8, 18.4, 27, 2]],
  },
  {
    number: '425', name: 'Wheelhouse heating, ferry Sanderling', short: 'Sanderling heating', kind: 'contract', customer: 'Marrow Sound Ferries', lead: 'asha', site: 'Afloat, berth 2', starts: 12, due: 40, dueWords: 'Due', quoteState: 'withCustomer', allowed: { '09': 80 },
    lines: [['HE-HYD-9', 2, 1180, 1680, 16], ['HO-FUEL-10', 16, 8, 12, 17], ['CA-2-25', 60, 2.95, 4.4, 17], ['BR-DP-16', 4, 18.4, 27, 17]],
  },
  {
    number: '426', name: 'Stern tube survey, launch Dotterel', short: 'Dotterel stern tube', kind: 'repair', customer: 'Estuary Survey Trust', lead: 'asha', site: 'Slip 1', starts: 8, due: 26, dueWords: 'Due back in water', allowed: { '09': 60 },
    lines: [],
  },
];
