/** What an item is. Materials and parts are goods: they are taken in and can lie in stores. The rest is not. */
export const ITEM_KINDS = ['material', 'part', 'service', 'subcontract', 'hire', 'charge'] as const;
export type ItemKind = (typeof ITEM_KINDS)[number];

export const ITEM_KIND_NAMES: Readonly<Record<ItemKind, string>> = {
  material: 'Material',
  part: 'Part',
  service: 'Service',
  subcontract: 'Subcontract',
  hire: 'Hire',
  charge: 'Charge',
};

export const isGoods = (kind: ItemKind): boolean => kind === 'material' || kind === 'part';

/** What follows each piece of an item: nothing, the lot that it came in, or its own serial number. */
export const TRACKING = ['none', 'lot', 'serial'] as const;
export type Tracking = (typeof TRACKING)[number];

export const TRACKING_NAMES: Readonly<Record<Tracking, string>> = {
  none: 'nothing',
  lot: 'its lot',
  serial: 'serial number',
};
