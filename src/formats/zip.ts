import { zipSync, type Zippable } from 'fflate';

type Entry = { readonly name: string; readonly bytes: Uint8Array };

/** Bundles files in a ZIP archive (PKWARE APPNOTE). Two of one name are told apart by a count before the end of it. */
export function zip(files: readonly Entry[]): Uint8Array {
  const all: Zippable = {};
  for (const { name, bytes } of files) all[freeName(name, all)] = [new Uint8Array(bytes), { level: 6 }];
  return zipSync(all);
}

function freeName(name: string, taken: Zippable): string {
  const at = name.lastIndexOf('.');
  const [stem, end] = at <= 0 ? [name, ''] : [name.slice(0, at), name.slice(at)];
  for (let n = 1; ; n += 1) {
    const tried = n === 1 ? name : `${stem} (${n})${end}`;
    if (!Object.keys(taken).some((t) => t.toLowerCase() === tried.toLowerCase())) return tried;
  }
}
