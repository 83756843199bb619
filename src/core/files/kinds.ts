import { LIMITS } from '../limits';
import { refusal, type Refusal } from '../result';

type Kind = {
  readonly type: string;
  /** How its bytes begin, where that is fixed; any of these. */
  readonly begins?: readonly (readonly number[])[];
};

const letters = (text: string): number[] => [...text].map((c) => c.charCodeAt(0));
const ZIP = [[0x50, 0x4b, 0x03, 0x04]];

/** Files that go with an order, by the end of their name: drawings, documents, lists and pictures. */
const KINDS: Readonly<Record<string, Kind>> = {
  pdf: { type: 'application/pdf', begins: [letters('%PDF-')] },
  png: { type: 'image/png', begins: [[0x89, ...letters('PNG')]] },
  jpg: { type: 'image/jpeg', begins: [[0xff, 0xd8, 0xff]] },
  jpeg: { type: 'image/jpeg', begins: [[0xff, 0xd8, 0xff]] },
  tif: { type: 'image/tiff', begins: [letters('II*\0'), letters('MM\0*')] },
  tiff: { type: 'image/tiff', begins: [letters('II*\0'), letters('MM\0*')] },
  dwg: { type: 'image/vnd.dwg', begins: [letters('AC10')] },
  dxf: { type: 'image/vnd.dxf' },
  step: { type: 'model/step', begins: [letters('ISO-10303-21')] },
  stp: { type: 'model/step', begins: [letters('ISO-10303-21')] },
  igs: { type: 'model/iges' },
  iges: { type: 'model/iges' },
  stl: { type: 'model/stl' },
  txt: { type: 'text/plain' },
  csv: { type: 'text/csv' },
  xml: { type: 'application/xml' },
  xlsx: { type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', begins: ZIP },
  docx: { type: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document', begins: ZIP },
  zip: { type: 'application/zip', begins: ZIP },
};

/** How programs begin that a machine would run, whatever their file is called: of Windows, Linux, macOS, and scripts. */
const PROGRAMS: readonly (readonly number[])[] = [
  letters('MZ'),
  [0x7f, ...letters('ELF')],
  [0xcf, 0xfa, 0xed, 0xfe],
  [0xca, 0xfe, 0xba, 0xbe],
  letters('#!'),
];

const beginsAs = (bytes: Uint8Array, begins: readonly number[]): boolean => begins.every((b, k) => bytes[k] === b);

const endOf = (name: string): string => /\.([a-z0-9]+)$/i.exec(name)?.[1]?.toLowerCase() ?? '';

export const MOST_MB = Math.round(LIMITS.attached / 1024 / 1024);

/**
 * Why a file cannot go with an order: it is empty or too large, of a kind that is not passed on, a program, or other than
 * its name says.
 * @param name - with its end, such as “frame.dxf”
 */
export function fileFault(name: string, bytes: Uint8Array): Refusal | undefined {
  const fault = (code: string, words: string) => refusal(code, `${name} ${words}`, 'file');
  const kind = KINDS[endOf(name)];
  if (bytes.length === 0) return fault('file.empty', 'is empty. Choose another file.');
  if (bytes.length > LIMITS.attached) return fault('file.large', `is larger than ${MOST_MB} MB.`);
  if (PROGRAMS.some((p) => beginsAs(bytes, p)))
    return fault('file.program', 'is a program; programs can’t be attached.');
  if (kind === undefined) return fault('file.kind', `can’t be attached. Allowed: ${Object.keys(KINDS).join(', ')}.`);
  return kind.begins === undefined || kind.begins.some((b) => beginsAs(bytes, b))
    ? undefined
    : fault('file.other', `doesn’t look like a .${endOf(name)} file. Save it again and retry.`);
}

/** Papers and photos of a delivery, by what their bytes are: what they are called says nothing. */
const PAPERS = ['pdf', 'jpg', 'png'] as const;

/** Of which kind a paper is, by its content alone; undefined for anything else. */
export const paperKind = (bytes: Uint8Array): (typeof PAPERS)[number] | undefined =>
  PAPERS.find((end) => KINDS[end]?.begins?.some((b) => beginsAs(bytes, b)));

/** Why a file is no paper of a delivery: it is empty, too large, or neither a PDF nor a photo. */
export function paperFault(name: string, bytes: Uint8Array): Refusal | undefined {
  const fault = (code: string, words: string) => refusal(code, `${name} ${words}`, 'file');
  if (bytes.length === 0) return fault('file.empty', 'is empty. Choose another file.');
  if (bytes.length > LIMITS.paper)
    return fault('file.large', `is larger than ${Math.round(LIMITS.paper / 1024 / 1024)} MB.`);
  return paperKind(bytes) === undefined
    ? fault('file.kind', 'isn’t a PDF or a photo (JPEG or PNG). Choose another file.')
    : undefined;
}

/** The media type of a file (RFC 6838), by the end of its name. */
export const typeOf = (name: string): string => KINDS[endOf(name)]?.type ?? 'application/octet-stream';

/** What ends of names a picker of files offers. */
export const FILE_ENDS = Object.keys(KINDS).map((end) => `.${end}`);

/** A name that is safe in a mail, an archive and an address: the last part of a path, without signs that mean something there. */
export const fileName = (given: string): string =>
  (given.split(/[\\/]/).at(-1) ?? '')

    .replace(/[\u0000-\u001f\u007f<>:"|?*\u202a-\u202e\u2066-\u2069]/g, '')
    .replace(/^\.+/, '')
    .trim()
    .slice(-120);

/** @example nameOfFile({ name: 'frame.dxf', revision: 'C' }) // 'frame.dxf (rev. C)' */
export const nameOfFile = ({ name, revision }: { readonly name: string; readonly revision: string }): string =>
  revision === '' ? name : `${name} (rev. ${revision})`;
