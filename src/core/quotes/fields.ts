/** What a column of a quote file can hold. */
export const QUOTE_FIELDS = [
  'item',
  'description',
  'quantity',
  'unit',
  'cost',
  'price',
  'costCode',
  'supplier',
  'neededOn',
  'kind',
  'markup',
  'optional',
  'per',
] as const;
export type QuoteField = (typeof QUOTE_FIELDS)[number];

export const QUOTE_FIELD_NAMES: Readonly<Record<QuoteField, string>> = {
  item: 'Item number',
  description: 'Description',
  quantity: 'Quantity',
  unit: 'Unit',
  cost: 'Unit cost',
  price: 'Unit price',
  costCode: 'Cost code',
  supplier: 'Supplier',
  neededOn: 'Needed by',
  kind: 'Line type',
  markup: 'Mark-up %',
  optional: 'Optional',
  per: 'Charged each or once',
};

/** Column of the file (from 0) for each field that it has. */
export type Mapping = Readonly<Partial<Record<QuoteField, number>>>;

const REQUIRED: readonly QuoteField[] = ['quantity', 'cost', 'costCode'];

/** Fields that must be mapped before rows can be read; empty when the mapping will do. */
export function missingFields(mapping: Mapping): string[] {
  const missing = REQUIRED.filter((f) => mapping[f] === undefined).map((f) => QUOTE_FIELD_NAMES[f]);
  return mapping.item === undefined && mapping.description === undefined
    ? ['Item number or description', ...missing]
    : missing;
}

const HEADINGS: Readonly<Record<QuoteField, RegExp>> = {
  item: /^(item|part|stock|article)(\s*(no\.?|number|code|#))?$|^(our )?(part|item)\b/i,
  description: /desc|^line$|^title$|text|^what/i,
  quantity: /^(qty|quantity|quant|amount needed|number)\b/i,
  unit: /^(unit|uom|u\/m|units)$|^unit of/i,
  cost: /cost(?!\s*(code|head|centre))|^buy|net price|our price/i,
  price: /sell|customer|charge|^price/i,
  costCode: /cost\s*(code|head|centre)|^code$|budget/i,
  supplier: /supplier|vendor|from whom/i,
  neededOn: /need|date|due|want|required/i,
  kind: /^(kind|type|bought|make|category)/i,
  markup: /mark.?up/i,
  optional: /^option/i,
  per: /^(taken|once)/i,
};

/** What a heading was said to hold before, by the heading in small letters; null for a column that is not used. */
export type KnownHeadings = ReadonlyMap<string, QuoteField | null>;

export const headingKey = (heading: string): string => folded(heading);

/** A first guess at the mapping from the headings: as it was said before, else by their words. Each column is used once. */
export function guessMapping(headings: readonly string[], before: KnownHeadings = new Map()): Mapping {
  const taken = new Set<number>();
  const order: readonly QuoteField[] = [
    'costCode',
    'markup',
    'optional',
    'per',
    'supplier',
    'neededOn',
    'quantity',
    'unit',
    'cost',
    'price',
    'kind',
    'description',
    'item',
  ];
  const found: Partial<Record<QuoteField, number>> = {};
  for (const [column, heading] of headings.entries()) {
    const field = before.get(folded(heading));
    if (field === undefined) continue;
    taken.add(column);
    if (field !== null) found[field] ??= column;
  }
  for (const field of order.filter((f) => found[f] === undefined)) {
    const column = headings.findIndex((h, k) => !taken.has(k) && HEADINGS[field].test(h.trim()));
    if (column < 0) continue;
    taken.add(column);
    found[field] = column;
  }
  return found;
}

/** Words as they are compared: small, with single blanks. */
export function folded(text: string): string {
  return text.trim().toLowerCase().replace(/\s+/g, ' ');
}
