import PDFDocument from 'pdfkit';
import type { Face, Faces } from './fonts';

/** How text looks: in what face, how large in points, and in what colour. */
export type Look = {
  readonly face: keyof Faces;
  readonly size: number;
  readonly colour: string;
  readonly struck?: boolean;
};

/** Text of one look; it breaks over rows. */
export type Piece = { readonly text: string; readonly look: Look };

/** Leading, as a multiple of the size. */
const LEADING = 1.35;

/** Where a row's letters stand on their line, as a share of the size below its top. */
const RISE = 0.12;

type Run = { readonly face: Face; readonly text: string };

/** A PDF that text is set on, with a sign taken from the first face that has it; what lies where is up to who sets it. */
export class Setting {
  readonly doc: PDFKit.PDFDocument;
  private readonly widths = new Map<string, number>();

  constructor(
    private readonly faces: Faces,
    options: PDFKit.PDFDocumentOptions,
  ) {
    this.doc = new PDFDocument({ ...options, autoFirstPage: false, bufferPages: true });
    for (const face of new Set(Object.values(faces).flat())) this.doc.registerFont(face.name, face.bytes);
  }

  /** A text in stretches of one face. */
  private runs(text: string, look: Look): Run[] {
    const faces = this.faces[look.face];
    const runs: { face: Face; text: string }[] = [];
    for (const sign of text) {
      const code = sign.codePointAt(0) ?? 0;
      const face = faces.find((f) => f.has.has(code)) ?? faces[0];
      const last = runs.at(-1);
      if (face === undefined) continue;
      if (last?.face === face) last.text += sign;
      else runs.push({ face, text: sign });
    }
    return runs;
  }

  /** How wide a text is on one row, in points. */
  width(text: string, look: Look): number {
    const key = `${look.face} ${look.size} ${text}`;
    const known = this.widths.get(key);
    if (known !== undefined) return known;
    let width = 0;
    for (const run of this.runs(text, look)) width += this.doc.font(run.face.name, look.size).widthOfString(run.text);
    this.widths.set(key, width);
    return width;
  }

  /** A text in rows that are no wider; a word that is wider is broken. */
  rows({ text, look }: Piece, most: number): string[] {
    return text.split('\n').flatMap((paragraph) => {
      const rows: string[] = [];
      let row = '';
      for (const word of paragraph.split(' ').flatMap((w) => this.broken(w, look, most))) {
        const longer = row === '' ? word : `${row} ${word}`;
        if (row !== '' && this.width(longer, look) > most) {
          rows.push(row);
          row = word;
        } else row = longer;
      }
      return [...rows, row];
    });
  }

  private broken(word: string, look: Look, most: number): string[] {
    if (this.width(word, look) <= most) return [word];
    const parts: string[] = [];
    let part = '';
    for (const sign of word) {
      if (part !== '' && this.width(part + sign, look) > most) {
        parts.push(part);
        part = '';
      }
      part += sign;
    }
    return [...parts, part];
  }

  /** How high pieces stand one below the other in a width. */
  height(pieces: readonly Piece[], most: number): number {
    return pieces.reduce((sum, p) => sum + this.rows(p, most).length * p.look.size * LEADING, 0);
  }

  /** Sets pieces one below the other from a corner. @returns the height they took */
  put(pieces: readonly Piece[], x: number, y: number, most: number, align: 'left' | 'right' = 'left'): number {
    let at = y;
    for (const piece of pieces)
      for (const row of this.rows(piece, most)) {
        this.row(row, piece.look, align === 'left' ? x : x + most - this.width(row, piece.look), at);
        at += piece.look.size * LEADING;
      }
    return at - y;
  }

  private row(text: string, look: Look, x: number, y: number): void {
    let at = x;
    for (const run of this.runs(text, look)) {
      this.doc
        .font(run.face.name, look.size)
        .fillColor(look.colour)
        .text(run.text, at, y + look.size * RISE, { lineBreak: false });
      at += this.doc.widthOfString(run.text);
    }
    if (look.struck === true) this.line(x, y + look.size * (RISE + 0.55), at - x, 0.7, look.colour);
  }

  /** A line across, of a thickness in points. */
  line(x: number, y: number, width: number, thickness: number, colour: string): void {
    this.doc
      .moveTo(x, y)
      .lineTo(x + width, y)
      .lineWidth(thickness)
      .strokeColor(colour)
      .stroke();
  }

  /** The finished file. */
  end(): Promise<Buffer> {
    const parts: Buffer[] = [];
    return new Promise((resolve, reject) => {
      this.doc.on('data', (part: Buffer) => parts.push(part));
      this.doc.on('end', () => resolve(Buffer.concat(parts)));
      this.doc.on('error', reject);
      this.doc.end();
    });
  }
}
