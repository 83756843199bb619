import type { Episode } from './yard';

/** What the sample company bought so far, oldest first; days are working days from today. */
export const EPISODES: readonly Episode[] = [
  { on: -55, lines: ['405/BE-6208', '405/SE-OIL-70'], sent: -55, in: [{ on: -49 }], bills: [{ on: -47, number: 'PB-20412', matched: -46 }] },
  { on: -54, lines: ['405/PL-S275-6'], sent: -54, in: [{ on: -50 }], bills: [{ on: -48, number: 'EM 77120', matched: -46 }] },
  { on: -50, lines: ['405/SHK-12'], sent: -50, in: [{ on: -49 }], bills: [{ on: -48, number: 'CT-3310', matched: -46 }] },
  { on: -46, lines: ['405/CO-TC-5'], sent: -46, in: [{ on: -41 }], bills: [{ on: -39, number: 'OX/5512', matched: -38 }] },
  { on: -44, lines: ['408/CO-EP-20', '408/CO-AF-20', '408/CO-TH-5'], sent: -44, in: [{ on: -38 }], bills: [{ on: -37, number: 'OX/5540', matched: -35 }] },
  { on: -42, lines: ['408/AN-ZN-5'], sent: -42, in: [{ on: -41 }], bills: [{ on: -40, number: 'CT-3367', prices: { 'AN-ZN-5': 33.5 }, matched: -36, reason: 'New zinc price from the first of the month, agreed by phone' }] },

  { on: -31, lines: [['412/PL-5083-5', 4], '412/TU-316-38', '412/RB-316-12'], sent: -30, in: [{ on: -25, note: 'DN 8841' }], bills: [{ on: -23, number: 'EM 77391', matched: -21 }] },
  { on: -29, lines: ['412/CP-FLEX-4'], sent: -28, in: [{ on: -15, note: 'DN 20588' }], bills: [{ on: -13, number: 'PB-20588', matched: -11 }] },
  { on: -27, lines: ['412/EN-INJ', '412/EN-IMP'], sent: -26, in: [{ on: -9, only: { 'EN-INJ': 4, 'EN-IMP': 2 }, note: '2 injectors to follow' }] },
  { on: -24, lines: [['412/CO-EP-20', 2], ['412/CO-TH-5', 2]], sent: -24, in: [{ on: -18, note: 'Lot 2207' }], bills: [{ on: -16, number: 'OX/5618', matched: -14 }] },
  { on: -20, lines: ['415/PL-S275-6', '415/AN-50-50'], sent: -19, in: [{ on: -13, note: 'DN 8902' }], bills: [{ on: -12, number: 'EM 77455', matched: -10 }] },
  { on: -18, lines: ['415/HO-FUEL-10', '415/CL-316-100'], sent: -18, in: [{ on: -17, note: 'Collected' }], bills: [{ on: -16, number: 'CT-3420', matched: -14 }] },
  { on: -17, lines: ['415/CO-EP-20'], sent: -17, in: [{ on: -11 }], bills: [{ on: -2, number: 'OX/5677', prices: { 'CO-EP-20': 227.6 } }] },
  { on: -16, lines: ['418/EN-GBX-CL'], sent: -15, in: [{ on: -4, note: 'Both packs checked' }], bills: [{ on: -3, number: 'LM 40071', matched: -2 }] },
  { on: -14, lines: [['412/CA-2-25', 110], '412/CA-3-15', [ '412/BR-DP-16', 12 ]], sent: -14, in: [{ on: -10, only: { 'CA-2-25': 1, 'CA-3-15': 90, 'BR-DP-16': 12 }, note: 'One reel short' }], bills: [{ on: -6, number: 'BME-11873' }] },
  { on: -12, lines: ['412/SEAL-MS', '412/CL-316-100', ['412/HO-FUEL-10', 12]], sent: -12, in: [{ on: -11, note: 'Collected' }], bills: [{ on: -9, number: 'CT-3466', matched: -8 }] },
  { on: -10, lines: ['423/NL-MH-360', '423/NL-SIDE', '423/CA-3-15', '423/GL-M20'], sent: -9, in: [{ on: -5, note: 'Parcel 2 of 2' }], bills: [{ on: -2, number: 'BME-11902' }] },
  { on: -7, lines: ['412/CO-TC-5', ['412/CO-EP-20', 1]], sent: -6, in: [{ on: -1 }] },
  { on: -7, lines: ['418/BE-6208', '418/SE-OIL-70', '419/BE-6208'], sent: -6 },
  { on: -5, lines: ['412/SC-GALV'], sent: -4 },
  { on: -3, lines: [['412/PL-5083-5', 2], '419/PL-S275-6'], sent: -2 },
  { on: -2, lines: ['412/TI-PLY-18'], sent: -1 },
  { on: -1, lines: ['412/NL-MH-360', '412/NL-SIDE', ['412/BR-DP-16', 6], '423/BR-DP-16'] },
  { on: -1, lines: ['418/CP-FLEX-4'] },
];
