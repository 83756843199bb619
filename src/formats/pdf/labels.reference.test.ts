import type { Day } from '@/core/calendar/workdays';
import { inflateSync } from 'node:zlib';
import {
  BinaryBitmap,
  Code128Reader,
  DecodeHintType,
  GlobalHistogramBinarizer,
  QRCodeReader,
  RGBLuminanceSource,
} from '@zxing/library';
import fc from 'fast-check';
import { readScan } from '../gs1';
import { codePng, labelsPdf, type Label } from './labels';

/**
 * The bars and squares of labels are read back by a decoder that is not ours and shares nothing with what draws them:
 * ZXing (package @zxing/library). Code 128 is ISO/IEC 15417, QR code ISO/IEC 18004.
 */

/** The grey values of a PNG without interlacing (ISO/IEC 15948), as a decoder wants them. */
function greyOf(png: Buffer): { readonly width: number; readonly height: number; readonly grey: Uint8ClampedArray } {
  let at = 8;
  let [width, height, depth, colour] = [0, 0, 0, 0];
  const parts: Buffer[] = [];
  let palette = Buffer.alloc(0);
  while (at < png.length) {
    const length = png.readUInt32BE(at);
    const type = png.toString('ascii', at + 4, at + 8);
    const data = png.subarray(at + 8, at + 8 + length);
    if (type === 'IHDR') {
      [width, height] = [data.readUInt32BE(0), data.readUInt32BE(4)];
      [depth, colour] = [data[8] ?? 0, data[9] ?? 0];
    }
    if (type === 'PLTE') palette = Buffer.from(data);
    if (type === 'IDAT') parts.push(data);
    at += 12 + length;
  }
  const channels = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 }[colour] ?? 1;
  const bits = depth * channels;
  const stride = Math.ceil((width * bits) / 8);
  const step = Math.max(1, bits / 8);
  const raw = inflateSync(Buffer.concat(parts));
  const rows = Buffer.alloc(stride * height);
  for (let y = 0; y < height; y += 1) {
    const filter = raw[y * (stride + 1)] ?? 0;
    for (let k = 0; k < stride; k += 1) {
      const value = raw[y * (stride + 1) + 1 + k] ?? 0;
      const left = k >= step ? (rows[y * stride + k - step] ?? 0) : 0;
      const up = y > 0 ? (rows[(y - 1) * stride + k] ?? 0) : 0;
      const corner = k >= step && y > 0 ? (rows[(y - 1) * stride + k - step] ?? 0) : 0;
      const paeth = () => {
        const p = left + up - corner;
        const [a, b, c] = [Math.abs(p - left), Math.abs(p - up), Math.abs(p - corner)];
        return a <= b && a <= c ? left : b <= c ? up : corner;
      };
      const add = [0, left, up, (left + up) >> 1, filter === 4 ? paeth() : 0][filter] ?? 0;
      rows[y * stride + k] = (value + add) & 255;
    }
  }
  const grey = new Uint8ClampedArray(width * height);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const bit = x * bits;
      const byte = rows[y * stride + (bit >> 3)] ?? 0;
      const value = depth < 8 ? (byte >> (8 - depth - (bit & 7))) & ((1 << depth) - 1) : byte;
      const shade = colour === 3 ? (palette[value * 3] ?? 255) : depth < 8 ? (value * 255) / ((1 << depth) - 1) : value;
      // What is clear is paper.
      const clear = colour === 6 && rows[y * stride + (bit >> 3) + 3] === 0;
      grey[y * width + x] = clear ? 255 : shade;
    }
  return { width, height, grey };
}

/** The picture on white paper with the quiet zone that both standards ask for. */
function onPaper({ width, height, grey }: ReturnType<typeof greyOf>, quiet: number): BinaryBitmap {
  const [wide, high] = [width + 2 * quiet, height + 2 * quiet];
  const paper = new Uint8ClampedArray(wide * high).fill(255);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) paper[(y + quiet) * wide + x + quiet] = grey[y * width + x] ?? 255;
  return new BinaryBitmap(new GlobalHistogramBinarizer(new RGBLuminanceSource(paper, wide, high)));
}

const readBack = async (text: string, code: 'bars' | 'square') => {
  const bitmap = onPaper(greyOf(await codePng(text, code)), 60);
  const reader = code === 'bars' ? new Code128Reader() : new QRCodeReader();
  // The picture holds the code alone, and straight.
  return reader.decode(bitmap, new Map([[DecodeHintType.PURE_BARCODE, code === 'square']])).getText();
};

describe('the codes of labels, read back by ZXing', () => {
  it.each(['TU-316-38', 'SN-2041', 'K26-0019', '9521101530001', 'a/b.c 7'])('bars of %s', async (text) =>
    expect(await readBack(text, 'bars')).toBe(text),
  );
  it.each(['TU-316-38', 'SN-2041', 'K26-0019', '9521101530001', 'a/b.c 7'])('a square of %s', async (text) =>
    expect(await readBack(text, 'square')).toBe(text),
  );

  it('hold for part numbers of every kind', async () => {
    await fc.assert(
      fc.asyncProperty(fc.stringMatching(/^[A-Z0-9][A-Z0-9./-]{0,19}$/), async (text) => {
        expect(await readBack(text, 'bars')).toBe(text);
        expect(await readBack(text, 'square')).toBe(text);
      }),
      { numRuns: 25 },
    );
  });

  it('are read at the dock as the number that they are of', async () => {
    const read = readScan(await readBack('BE-6208', 'bars'), '2026-05-12' as Day);
    expect(read.ok && read.value.words).toEqual(['BE-6208']);
  });
});

describe('a file of labels', () => {
  const label: Label = {
    ...{ whose: 'Job 418', description: 'Oil seal 70 × 90 × 10', code: 'SE-OIL-70', quantity: '8', order: 'K26-0019' },
    place: 'Yard, A-02',
  };
  const pages = async (many: number, sheet: 'roll' | 'a4') => {
    const { getDocumentProxy, extractText } = await import('unpdf');
    const pdf = await getDocumentProxy(
      new Uint8Array(await labelsPdf(Array<Label>(many).fill(label), { code: 'bars', sheet })),
    );
    return { pages: pdf.numPages, text: (await extractText(pdf, { mergePages: true })).text };
  };
  it('has a page for each on a roll, and fourteen on a sheet', async () => {
    expect((await pages(3, 'roll')).pages).toBe(3);
    expect((await pages(14, 'a4')).pages).toBe(1);
    const { pages: two, text } = await pages(15, 'a4');
    expect(two).toBe(2);
    for (const words of ['Job 418', 'Oil seal 70 × 90 × 10', 'SE-OIL-70', 'K26-0019', 'Yard, A-02'])
      expect(text).toContain(words);
  });
});
