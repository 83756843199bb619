import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { create } from 'fontkit';
import { convert } from 'fontverter';

/** A font that ships with the application, unwrapped, with the code points it has signs for. */
export type Face = { readonly name: string; readonly bytes: Buffer; readonly has: ReadonlySet<number> };

/** How text is set: each has its faces in the order in which a sign is looked for, as part names hold signs beyond Latin. */
export type Faces = Readonly<Record<'text' | 'strong' | 'mono' | 'monoStrong', readonly Face[]>>;

const file = (family: string, subset: string, weight: number) =>
  join(process.cwd(), 'node_modules', '@fontsource', family, 'files', `${family}-${subset}-${weight}-normal.woff`);

async function faceOf(family: string, subset: string, weight: number): Promise<Face> {
  const bytes = await convert(await readFile(file(family, subset, weight)), 'sfnt');
  const font = create(bytes);
  if (!('characterSet' in font)) throw new Error(`${family} is a collection of fonts.`);
  return { name: `${family} ${subset} ${weight}`, bytes, has: new Set(font.characterSet) };
}

async function load(): Promise<Faces> {
  const text = (weight: number) =>
    ['latin', 'latin-ext', 'greek', 'cyrillic'].map((subset) => faceOf('commissioner', subset, weight));
  const signs = faceOf('noto-sans-math', 'latin', 400);
  const [plain, strong] = [await Promise.all([...text(400), signs]), await Promise.all([...text(700), signs])];
  const mono = (weight: number) => faceOf('atkinson-hyperlegible-mono', 'latin', weight);
  return { text: plain, strong, mono: [await mono(400), ...plain], monoStrong: [await mono(700), ...strong] };
}

let loaded: Promise<Faces> | undefined;

/** The fonts that ship with the application, read once; those that are used are embedded in a PDF. */
export const loadFaces = (): Promise<Faces> => (loaded ??= load());
