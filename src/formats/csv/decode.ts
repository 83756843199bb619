import iconv from 'iconv-lite';
import { done, refusal, refused, type Result } from '@/core/result';

export type Decoded = { readonly text: string; readonly encoding: 'UTF-8' | 'UTF-16' | 'Windows-1252' };

const notText = (what: string) =>
  refused(refusal('file.notText', `This is ${what}, not a CSV file. Save the sheet as CSV and choose that file.`));

const SIGNATURES: readonly (readonly [string, readonly number[]])[] = [
  ['a PNG picture', [0x89, 0x50, 0x4e, 0x47]],
  ['a JPEG picture', [0xff, 0xd8, 0xff]],
  ['a GIF picture', [0x47, 0x49, 0x46, 0x38]],
  ['a PDF document', [0x25, 0x50, 0x44, 0x46]],
  ['a workbook or zip file', [0x50, 0x4b, 0x03, 0x04]],
];

/**
 * Turns the bytes of a text file into text: UTF-8 with or without a byte order mark, UTF-16 with one, else
 * Windows-1252 (WHATWG Encoding Standard).
 *
 * @returns the text without its byte order mark, or why the bytes are no text
 */
export function decodeText(bytes: Uint8Array): Result<Decoded> {
  if (bytes.length === 0) return refused(refusal('file.empty', 'The file is empty.'));
  const known = SIGNATURES.find(([, signature]) => signature.every((b, k) => bytes[k] === b));
  if (known !== undefined) return notText(known[0]);
  if (bytes[0] === 0xff && bytes[1] === 0xfe)
    return done({ text: new TextDecoder('utf-16le').decode(bytes), encoding: 'UTF-16' });
  if (bytes[0] === 0xfe && bytes[1] === 0xff)
    return done({ text: new TextDecoder('utf-16be').decode(bytes), encoding: 'UTF-16' });
  if (bytes.includes(0)) return notText('a binary file');
  try {
    return done({ text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' });
  } catch {
    // Node.js 20 decodes this label as ISO 8859-1 and loses the euro sign and curly quotation marks.
    return done({ text: iconv.decode(Buffer.from(bytes), 'windows-1252'), encoding: 'Windows-1252' });
  }
}
