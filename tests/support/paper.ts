import type { OrderPaper } from '@/formats/pdf/purchaseOrder';

/** An order's paper with so many lines. */
export const paper = (lines: number): OrderPaper => ({
  number: 'K26-0191',
  draft: false,
  size: 'A4',
  date: 'Tue 12 May 2026',
  company: {
    name: 'Wrackline Boatyard',
    address: 'Staithe Road\nSaltmarsh',
    email: 'buying@wrackline.example',
    taxNumber: '',
  },
  supplier: { name: 'Eelmoor Metals', contact: 'Sales desk', address: 'Unit 4' },
  deliverTo: { name: 'Bay 3', address: 'Staithe Road', instructions: 'before 15:00' },
  wanted: 'Tue 19 May',
  carrier: 'Van',
  payment: '30 days',
  buyer: 'Mina Rowe',
  instructions: '',
  currency: 'GBP',
  lines: Array.from({ length: lines }, (_, k) => ({
    place: String(k + 1),
    description: `Tube ⌀ 38 × 2 mm, ≤ 6 m`,
    ourNumber: 'TU-316-38',
    theirNumber: '88120',
    quantity: '48 m',
    price: '9.85',
    wanted: 'Wed 30 Sep 2026',
    net: '472.80',
  })),
  totals: [{ label: 'Order total', amount: '£ 567.36', strong: true }],
  terms: 'Our terms apply.',
});
