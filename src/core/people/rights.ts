export const ROLES = ['buyer', 'lead', 'manager', 'storekeeper', 'accounts', 'field', 'administrator'] as const;
export type Role = (typeof ROLES)[number];

export const ROLE_NAMES: Readonly<Record<Role, string>> = {
  buyer: 'Buyer',
  lead: 'Job lead',
  manager: 'Manager',
  storekeeper: 'Storekeeper',
  accounts: 'Accounts',
  field: 'Field',
  administrator: 'Administrator',
};

export const RIGHTS = {
  'see jobs': 'view jobs',
  'see orders': 'view orders',
  'see money': 'see prices and budgets',
  'open jobs': 'open jobs',
  'close jobs': 'hold and close jobs',
  'import quotes': 'import quotes',
  'win quotes': 'mark a quote won',
  'change buy lists': 'change buy lists',
  'write budget changes': 'write budget changes',
  'agree budget changes': 'agree budget changes',
  'draft orders': 'draft orders',
  'send orders': 'send orders',
  'sign orders': 'sign orders',
  'keep files': 'manage files',
  'see dock': 'view the Dock',
  receive: 'receive deliveries',
  'add reasons': 'add delivery reasons',
  'see invoices': 'view invoices',
  'enter invoices': 'enter invoices',
  'match invoices': 'match invoices',
  'pass differences': 'approve invoice differences',
  'see stores': 'view stores',
  'keep stores': 'count, issue and return stock',
  'reserve stock': 'reserve stock for jobs',
  'agree counts': 'post large count differences',
  'keep BOMs': 'edit bills of materials',
  'keep suppliers': 'edit suppliers and items',
  'manage people': 'manage people and settings',
} as const;
export type Right = keyof typeof RIGHTS;

const LOOK: readonly Right[] = ['see jobs', 'see orders', 'see money'];

const BUYER: readonly Right[] = [
  ...LOOK,
  'open jobs',
  'import quotes',
  'win quotes',
  'change buy lists',
  'write budget changes',
  'draft orders',
  'send orders',
  'sign orders',
  'keep files',
  'see dock',
  'receive',
  'add reasons',
  'see invoices',
  'enter invoices',
  'match invoices',
  'see stores',
  'keep stores',
  'reserve stock',
  'keep BOMs',
  'keep suppliers',
];

const GRANTED: Readonly<Record<Role, readonly Right[]>> = {
  buyer: BUYER,
  lead: [
    ...LOOK,
    'open jobs',
    'import quotes',
    'win quotes',
    'change buy lists',
    'write budget changes',
    'agree budget changes',
    'close jobs',
    'sign orders',
    'keep files',
    'see dock',
    'see invoices',
    'see stores',
    'reserve stock',
    'keep BOMs',
  ],
  manager: [...BUYER, 'agree counts', 'agree budget changes', 'close jobs', 'pass differences'],
  storekeeper: [
    'see jobs',
    'see orders',
    'see dock',
    'receive',
    'add reasons',
    'see stores',
    'keep stores',
    'reserve stock',
  ],
  accounts: [
    ...LOOK,
    'sign orders',
    'see dock',
    'see stores',
    'see invoices',
    'enter invoices',
    'match invoices',
    'pass differences',
  ],
  field: ['see jobs', 'see dock'],
  administrator: [...LOOK, 'sign orders', 'add reasons', 'manage people'],
};

/** The roles that a right comes with. */
export const rolesWith = (right: Right): Role[] => ROLES.filter((role) => GRANTED[role].includes(right));

/** Whether any of a person's roles grants a right. */
export const may = (person: { readonly roles: readonly Role[] }, right: Right): boolean =>
  person.roles.some((role) => GRANTED[role].includes(right));
