import { z } from 'zod';
import { anyText, text } from './fields';

/** What of the customer's is worked on: a machine, a vehicle, a building. */
export const assetFields = z.object({
  name: text(120, 'Enter a description.'),
  /** What it is, without naming its make: size, type, rating. */
  description: anyText(200),
  serial: anyText(80),
  notes: anyText(1000),
});
export type AssetFields = z.output<typeof assetFields>;

/** An asset in a line, to look parts up for. @example 'Gearbox, two-speed, 2.5 : 1, serial 88-412' */
export const assetWords = ({ name, description, serial }: Omit<AssetFields, 'notes'>): string =>
  [name, description, serial === '' ? '' : `serial ${serial}`].filter((w) => w !== '').join(', ');
