import type { Right } from '@/core/people/rights';

export type Counts = { readonly gather: number; readonly dock: number; readonly invoices: number };

/** A page that is gone to by its name. */
export type Place = {
  readonly href: string;
  readonly name: string;
  readonly rights: readonly Right[];
  /** What waits there. */
  readonly count?: keyof Counts;
  /** What is done there, for Find. */
  readonly words: string;
  /** Where it is offered: in the band, in the foot bar of a phone, or in the person's menu. */
  readonly at: 'band' | 'foot' | 'menu' | 'find';
};

export const PLACES: readonly Place[] = [
  { href: '/', name: 'Desk', rights: ['see jobs'], words: 'what needs you today', at: 'band' },
  { href: '/jobs', name: 'Jobs', rights: ['see jobs'], words: 'jobs and their budgets', at: 'foot' },
  { href: '/gather', name: 'Gather', rights: ['draft orders'], count: 'gather', words: 'what is to buy', at: 'foot' },
  { href: '/orders', name: 'Orders', rights: ['see orders'], words: 'purchase orders', at: 'band' },
  { href: '/dock', name: 'Dock', rights: ['see dock'], count: 'dock', words: 'deliveries', at: 'foot' },
  {
    href: '/invoices',
    name: 'Invoices',
    rights: ['see invoices'],
    count: 'invoices',
    words: 'bills to match',
    at: 'band',
  },
  { href: '/stores', name: 'Stores', rights: ['see stores'], words: 'what lies where, and for whom', at: 'foot' },
  { href: '/suppliers', name: 'Suppliers', rights: ['keep suppliers'], words: 'whom we buy from', at: 'band' },
  {
    href: '/outbox',
    name: 'Outbox',
    rights: ['see orders', 'see money'],
    words: 'what was mailed to suppliers',
    at: 'menu',
  },
  { href: '/items', name: 'Items', rights: ['see money'], words: 'parts and services', at: 'menu' },
  { href: '/rates', name: 'Exchange rates', rights: ['see money'], words: 'currencies', at: 'find' },
  { href: '/words', name: 'Words on orders', rights: ['keep suppliers'], words: 'mails, text blocks', at: 'find' },
  { href: '/history', name: 'History', rights: ['see money'], words: 'who did what, before and after', at: 'menu' },
  { href: '/people', name: 'People', rights: ['manage people'], words: 'who signs in', at: 'find' },
  { href: '/sign', name: 'To sign', rights: ['sign orders'], words: 'orders that wait for you', at: 'menu' },
  {
    href: '/ladder',
    name: 'Sign-off',
    rights: ['manage people'],
    words: 'ladder, rules, limits, deputies',
    at: 'find',
  },
  {
    href: '/company',
    name: 'Company and calendar',
    rights: ['manage people'],
    words: 'settings, days off',
    at: 'find',
  },
  {
    href: '/settings',
    name: 'Settings',
    rights: ['see money'],
    words: 'company, people, codes, taxes, words',
    at: 'menu',
  },
  { href: '/codes', name: 'Cost codes', rights: ['manage people'], words: 'the headings of budgets', at: 'find' },
  { href: '/taxes', name: 'Taxes', rights: ['manage people'], words: 'rates, and what is recovered', at: 'find' },
  {
    href: '/places',
    name: 'Our places',
    rights: ['manage people'],
    words: 'where goods come in and lie',
    at: 'find',
  },
  {
    href: '/reasons',
    name: 'Reasons at the dock',
    rights: ['manage people'],
    words: 'why a delivery is not as ordered',
    at: 'find',
  },
  { href: '/units', name: 'Units', rights: ['manage people'], words: 'which are offered', at: 'find' },
  { href: '/you', name: 'Your sign-ins and password', rights: [], words: 'where you are signed in', at: 'menu' },
  { href: '/dock/scan', name: 'Scan in', rights: ['receive'], words: 'take in by scanning', at: 'find' },
  { href: '/jobs/new', name: 'New job', rights: ['open jobs'], words: 'open a job', at: 'find' },
  { href: '/items/new', name: 'New part', rights: ['keep suppliers'], words: 'add an item', at: 'find' },
  { href: '/suppliers/new', name: 'New supplier', rights: ['keep suppliers'], words: 'add a supplier', at: 'find' },
  {
    href: '/invoices/new',
    name: 'New invoice',
    rights: ['enter invoices'],
    words: 'enter a supplier’s bill',
    at: 'find',
  },
];

export const placesFor = (may: (right: Right) => boolean): readonly Place[] =>
  PLACES.filter((p) => p.rights.every(may));
