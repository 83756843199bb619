import { join } from 'node:path';
import { Font } from '@react-pdf/renderer';

const file = (family: string, subset: string, weight: number) =>
  join(process.cwd(), 'node_modules', '@fontsource', family, 'files', `${family}-${subset}-${weight}-normal.woff`);

/** Families in the order in which a glyph is looked for: part names hold signs beyond the Latin alphabet. */
export const TEXT = [
  'Commissioner',
  'Commissioner latin-ext',
  'Commissioner greek',
  'Commissioner cyrillic',
  'Noto Sans Math',
];
export const MONO = ['Atkinson Hyperlegible Mono', ...TEXT];

let registered = false;

/** Registers the fonts that ship with the application; they are embedded in every PDF. */
export function registerFonts(): void {
  if (registered) return;
  registered = true;
  const weights = (family: string, subset: string) =>
    [400, 700].map((fontWeight) => ({ src: file(family, subset, fontWeight), fontWeight }));
  Font.register({ family: 'Commissioner', fonts: weights('commissioner', 'latin') });
  for (const subset of ['latin-ext', 'greek', 'cyrillic'])
    Font.register({ family: `Commissioner ${subset}`, fonts: weights('commissioner', subset) });
  Font.register({ family: 'Noto Sans Math', src: file('noto-sans-math', 'latin', 400) });
  Font.register({ family: 'Atkinson Hyperlegible Mono', fonts: weights('atkinson-hyperlegible-mono', 'latin') });
  Font.registerHyphenationCallback((word) => [word]);
}
