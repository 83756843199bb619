import type { Right, Role } from '@/core/people/rights';

export type Counts = { readonly gather: number; readonly dock: number; readonly invoices: number };

/** A page that is gone to by its name. */
export type MenuEntry = {
  readonly href: string;
  readonly name: string;
  readonly rights: readonly Right[];
  /** What waits there, and what its number counts, for who has it read aloud. */
  readonly count?: keyof Counts;
  readonly waiting?: (n: number) => string;
  /** What is done there, for Find. */
  readonly words: string;
  /** Where it is offered: in the band, in the person's menu, or in Find alone. */
  readonly at: 'band' | 'menu' | 'find';
};

export const PLACES: readonly MenuEntry[] = [
  { href: '/', name: 'Desk', rights: ['see jobs'], words: 'what needs you today', at: 'band' },
  { href: '/jobs', name: 'Jobs', rights: ['see jobs'], words: 'jobs and their budgets', at: 'band' },
  {
    href: '/gather',
    name: 'Gather',
    rights: ['draft orders'],
    count: 'gather',
    waiting: (n) => `${n === 1 ? 'line' : 'lines'} to buy`,
    words: 'lines to buy',
    at: 'band',
  },
  { href: '/orders', name: 'Orders', rights: ['see orders'], words: 'purchase orders', at: 'band' },
  {
    href: '/dock',
    name: 'Dock',
    rights: ['see dock'],
    count: 'dock',
    waiting: (n) => `${n === 1 ? 'delivery' : 'deliveries'} late or due`,
    words: 'deliveries',
    at: 'band',
  },
  {
    href: '/invoices',
    name: 'Invoices',
    rights: ['see invoices'],
    count: 'invoices',
    waiting: () => 'to match',
    words: 'supplier invoices to match',
    at: 'band',
  },
  { href: '/stores', name: 'Stores', rights: ['see stores'], words: 'stock by location and job', at: 'band' },
  { href: '/suppliers', name: 'Suppliers', rights: ['keep suppliers'], words: 'suppliers and terms', at: 'band' },
  {
    href: '/outbox',
    name: 'Outbox',
    rights: ['see orders', 'see money'],
    words: 'emails to suppliers',
    at: 'menu',
  },
  { href: '/items', name: 'Items', rights: ['see money'], words: 'parts and services', at: 'menu' },
  { href: '/rates', name: 'Exchange rates', rights: ['see money'], words: 'currencies', at: 'find' },
  {
    href: '/words',
    name: 'Order and email wording',
    rights: ['keep suppliers'],
    words: 'texts on orders and emails',
    at: 'find',
  },
  { href: '/history', name: 'History', rights: ['see money'], words: 'who changed what, and when', at: 'menu' },
  { href: '/people', name: 'People', rights: ['manage people'], words: 'people, roles and access', at: 'find' },
  { href: '/sign', name: 'To sign', rights: ['sign orders'], words: 'orders waiting for you', at: 'menu' },
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
    words: 'settings, non-working days',
    at: 'find',
  },
  {
    href: '/settings',
    name: 'Settings',
    rights: ['see money'],
    words: 'company, people, codes, taxes, wording',
    at: 'menu',
  },
  { href: '/codes', name: 'Cost codes', rights: ['manage people'], words: 'budget headings', at: 'find' },
  { href: '/taxes', name: 'Taxes', rights: ['manage people'], words: 'rates, and how much is recoverable', at: 'find' },
  {
    href: '/places',
    name: 'Locations',
    rights: ['manage people'],
    words: 'delivery and stock locations',
    at: 'find',
  },
  {
    href: '/reasons',
    name: 'Delivery reasons',
    rights: ['manage people'],
    words: 'reasons given when receiving',
    at: 'find',
  },
  { href: '/units', name: 'Units', rights: ['manage people'], words: 'units in use', at: 'find' },
  { href: '/you', name: 'Your account', rights: [], words: 'signed-in devices', at: 'menu' },
  { href: '/dock/scan', name: 'Scan in', rights: ['receive'], words: 'receive by scanning', at: 'find' },
  { href: '/jobs/new', name: 'New job', rights: ['open jobs'], words: 'create a job', at: 'find' },
  { href: '/items/new', name: 'New item', rights: ['keep suppliers'], words: 'add an item', at: 'find' },
  { href: '/suppliers/new', name: 'New supplier', rights: ['keep suppliers'], words: 'add a supplier', at: 'find' },
  {
    href: '/invoices/new',
    name: 'New invoice',
    rights: ['enter invoices'],
    words: 'enter a supplier’s invoice',
    at: 'find',
  },
];

export const menuFor = (may: (right: Right) => boolean): readonly MenuEntry[] =>
  PLACES.filter((p) => p.rights.every(may));

/** What each role goes to most: the foot bar of a phone offers the first four. */
const MOST_USED: Readonly<Record<Role, readonly string[]>> = {
  buyer: ['/', '/gather', '/orders', '/dock'],
  lead: ['/', '/jobs', '/sign', '/orders'],
  manager: ['/', '/sign', '/jobs', '/orders'],
  storekeeper: ['/', '/dock', '/stores', '/orders'],
  accounts: ['/', '/invoices', '/orders', '/sign'],
  field: ['/', '/jobs', '/dock'],
  administrator: ['/', '/jobs', '/orders', '/sign'],
};
const IN_FOOT = 4;

/** The places in the foot bar of a phone, by the first of a person's roles that has a place left to offer. */
export function footFor(roles: readonly Role[], may: (right: Right) => boolean): readonly MenuEntry[] {
  const places = menuFor(may);
  const hrefs = [...new Set(roles.flatMap((r) => MOST_USED[r]))];
  return hrefs.flatMap((href) => places.find((p) => p.href === href) ?? []).slice(0, IN_FOOT);
}
