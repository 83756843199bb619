import { Unzip, UnzipInflate, zipSync } from 'fflate';
import { Parser } from 'saxen';
import { done, refusal, refused, type Result } from '@/core/result';
import { grouped } from '@/core/words';
import { MOST_COLUMNS, MOST_ROWS } from '../csv/read';

/** What a workbook may come to once it is unpacked, in bytes; and how many times what came, from the first megabyte on. */
const MOST_UNPACKED = 96 * 1024 * 1024;
const MOST_TIMES = 50;
const SMALL = 1024 * 1024;
/** So much is unpacked before its size is looked at again; deflate makes at most 1,032 times as much of it (RFC 1951). */
const PIECE = 2048;
const MOST_FILES = 1000;

const DAMAGED = refusal('file.workbook', 'This file can’t be read as a workbook. Save it as XLSX or CSV.');
const TOO_LARGE = refusal('file.workbook', 'This workbook is damaged or too large. Save it again as XLSX, or as CSV.');

type Files = Record<string, Uint8Array>;

/** Unpacks the XML of a workbook piece by piece, and stops as soon as it is more than it may be. */
function unpack(bytes: Uint8Array): Result<Files> {
  const parts = new Map<string, Uint8Array[]>();
  let size = 0;
  let files = 0;
  let broken = false;
  const unzip = new Unzip((file) => {
    files += 1;
    if (!/\.(xml|rels)$/.test(file.name)) return;
    if (parts.has(file.name)) broken = true;
    const own: Uint8Array[] = [];
    parts.set(file.name, own);
    file.ondata = (error, part) => {
      broken ||= error !== null;
      size += part?.length ?? 0;
      own.push(part);
    };
    file.start();
  });
  unzip.register(UnzipInflate);
  const most = Math.min(MOST_UNPACKED, Math.max(SMALL, MOST_TIMES * bytes.length));
  for (let at = 0; at < bytes.length; at += PIECE) {
    try {
      unzip.push(bytes.subarray(at, at + PIECE), at + PIECE >= bytes.length);
    } catch {
      broken = true;
    }
    if (broken) return refused(DAMAGED);
    if (size > most || files > MOST_FILES) return refused(TOO_LARGE);
  }
  return done(Object.fromEntries([...parts].map(([name, own]) => [name, Buffer.concat(own)])));
}

/** The number of a column by its letters, base 26 (ECMA-376, 18.18.7): A is 1, Z 26, AA 27. */
const columnOf = (letters: string): number => [...letters].reduce((n, c) => n * 26 + c.charCodeAt(0) - 64, 0);

/** The first row or cell of a sheet that lies outside what is read. */
function farOff(xml: string): string | undefined {
  let far: string | undefined;
  const parser = new Parser();
  const isFar = (ref: string) => {
    const [, letters = '', row = ''] = /^([A-Z]*)(\d*)$/.exec(ref) ?? [];
    return (
      letters + row !== ref || letters.length > 3 || columnOf(letters) > MOST_COLUMNS || Number(row) > MOST_ROWS + 1
    );
  };
  parser.on('openTag', (name, attributes) => {
    if (name !== 'c' && name !== 'row') return;
    const { r } = attributes();
    if (r === undefined || !isFar(r)) return;
    far = name === 'c' ? `Cell ${r.slice(0, 20)}` : `Row ${r.slice(0, 20)}`;
    parser.stop();
  });
  parser.parse(xml);
  return far;
}

/**
 * Looks through a workbook (Office Open XML, ECMA-376) before any reader of workbooks is given it: what it unpacks to,
 * and how far off its rows and cells lie, since a reader fills all that lies between.
 *
 * @returns its XML alone, in a plain archive; or why it is not to be read
 */
export function checkWorkbook(bytes: Uint8Array): Result<Uint8Array> {
  const files = unpack(bytes);
  if (!files.ok) return files;
  for (const xml of Object.values(files.value)) {
    const far = farOff(new TextDecoder().decode(xml));
    if (far !== undefined)
      return refused(
        refusal(
          'file.far',
          `${far} lies outside the ${grouped(MOST_ROWS)} rows and ${MOST_COLUMNS} columns a file may have. Delete what stands there and save the workbook again.`,
        ),
      );
  }
  return done(zipSync(files.value, { level: 0 }));
}
