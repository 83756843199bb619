import { toBuffer } from 'bwip-js/node';
import type { LabelWay } from '@/core/receiving/labels';
import { loadFaces } from './fonts';
import { LOOKS, piece } from './letter';
import { Setting, type Look } from './setting';

/** A label for goods: whose they are, what they are, how many, and where they go. */
export type Label = {
  /** “Job 418”, or “Stores”. */
  readonly whose: string;
  readonly description: string;
  /** What the code says, which is printed beneath it as well. */
  readonly code: string;
  readonly quantity: string;
  readonly order: string;
  readonly place: string;
};

const MM = 72 / 25.4;
/** A roll of labels of 100 × 50 mm. */
const ROLL = { width: 100 * MM, height: 50 * MM };
/** Two by seven labels of 99.1 × 38.1 mm, as sheets of fourteen are cut. */
const A4 = {
  width: 210 * MM,
  height: 297 * MM,
  across: 2,
  down: 7,
  wide: 99.1 * MM,
  high: 38.1 * MM,
  left: 4.65 * MM,
  top: 15.15 * MM,
  gap: 2.5 * MM,
};

const WHOSE: Look = { ...LOOKS.strong, size: 15 };
const PAD = 7;

/** The bars or the square of a code, as a PNG that a scanner reads. */
export const codePng = (text: string, code: LabelWay['code']): Promise<Buffer> =>
  toBuffer(
    code === 'bars'
      ? { bcid: 'code128', text, scale: 3, height: 12, paddingwidth: 0 }
      : { bcid: 'qrcode', text, scale: 4 },
  );

/** Sets labels as a PDF, in their order. */
export async function labelsPdf(labels: readonly Label[], { code, sheet }: LabelWay): Promise<Buffer> {
  const set = new Setting(await loadFaces(), { info: { Title: 'Labels' } });
  const pictures = new Map<string, Buffer>();
  for (const label of labels) if (!pictures.has(label.code)) pictures.set(label.code, await codePng(label.code, code));
  const each = A4.across * A4.down;
  for (const [k, label] of labels.entries()) {
    const roll = sheet === 'roll';
    if (roll || k % each === 0)
      set.doc.addPage({ size: roll ? [ROLL.width, ROLL.height] : [A4.width, A4.height], margin: 0 });
    const at = k % each;
    const x = roll ? 0 : A4.left + (at % A4.across) * (A4.wide + A4.gap);
    const y = roll ? 0 : A4.top + Math.floor(at / A4.across) * A4.high;
    const [wide, high] = roll ? [ROLL.width, ROLL.height] : [A4.wide, A4.high];
    setLabel(set, label, pictures.get(label.code), code, { x, y, wide, high });
  }
  return set.end();
}

type Box = { readonly x: number; readonly y: number; readonly wide: number; readonly high: number };

function setLabel(set: Setting, label: Label, picture: Buffer | undefined, code: LabelWay['code'], box: Box): void {
  const [x, y, wide] = [box.x + PAD, box.y + PAD, box.wide - 2 * PAD];
  const square = Math.min(box.high - 2 * PAD - 12, 78);
  const most = code === 'square' ? wide - square - PAD : wide;
  const top = set.put([piece(label.whose, WHOSE)], x, y, most * 0.6);
  set.put([piece(label.quantity, WHOSE)], x, y, most, 'right');
  const words = [piece(label.description, LOOKS.strong), piece(`${label.order} · ${label.place}`, LOOKS.small)];
  const below = y + top + set.put(words, x, y + top, most);
  if (picture === undefined) return;
  if (code === 'square') {
    set.doc.image(picture, x + wide - square, y, { fit: [square, square] });
    set.put([piece(label.code, LOOKS.numbers)], x + wide - square, y + square + 2, square);
  } else {
    const high = Math.max(box.y + box.high - PAD - below - 12, 16);
    set.doc.image(picture, x, below + 2, { fit: [wide * 0.75, high - 2] });
    set.put([piece(label.code, LOOKS.numbers)], x, box.y + box.high - PAD - 10, wide);
  }
}
