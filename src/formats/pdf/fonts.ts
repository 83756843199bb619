import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Font } from '@react-pdf/renderer';
import { convert } from 'fontverter';

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

/** A font as the browser gets it, unwrapped: a wrapped one would be inflated again for every glyph of every PDF. */
async function unwrapped(family: string, subset: string, weight: number): Promise<string> {
  const font = await convert(await readFile(file(family, subset, weight)), 'sfnt');
  return `data:font/ttf;base64,${font.toString('base64')}`;
}

async function register(): Promise<void> {
  const add = async (name: string, family: string, subset: string, weights = [400, 700]) =>
    Font.register({
      family: name,
      fonts: await Promise.all(
        weights.map(async (fontWeight) => ({ src: await unwrapped(family, subset, fontWeight), fontWeight })),
      ),
    });
  await Promise.all([
    add('Commissioner', 'commissioner', 'latin'),
    ...['latin-ext', 'greek', 'cyrillic'].map((subset) => add(`Commissioner ${subset}`, 'commissioner', subset)),
    add('Noto Sans Math', 'noto-sans-math', 'latin', [400]),
    add('Atkinson Hyperlegible Mono', 'atkinson-hyperlegible-mono', 'latin'),
  ]);
  Font.registerHyphenationCallback((word) => [word]);
}

let registered: Promise<void> | undefined;

/** Registers the fonts that ship with the application, once; they are embedded in every PDF. */
export const registerFonts = (): Promise<void> => (registered ??= register());
