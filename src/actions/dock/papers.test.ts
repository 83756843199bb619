import { openDock, type Dock } from '../../../tests/support/dock';
import { must, refusedWith, type TestCompany } from '../../../tests/support/company';
import { loadDockOrder } from '@/queries/dock/order';
import { loadDockPaper } from '@/queries/dock/papers';
import { keepPaper, removePaper } from './papers';

let yard: TestCompany;
let dock: Dock;
let receiptId: number;
let number: string;

beforeEach(async () => {
  ({ yard, dock } = await openDock());
  const { order } = await dock.ordered(4);
  number = order.number;
  receiptId = must(await dock.take(order, 4)).id;
});
afterEach(async () => yard.closeProven());

const JPEG = Uint8Array.of(0xff, 0xd8, 0xff, 0xe0, 1, 2, 3);
const keep = async (
  name: string,
  bytes: Uint8Array,
  about: 'receipt' | 'certificate' = 'receipt',
  aboutId = receiptId,
) =>
  keepPaper(await yard.as('storekeeper'), {
    once: yard.once(),
    about,
    aboutId,
    name,
    bytes: bytes as Uint8Array<ArrayBuffer>,
  });

describe('papers of a delivery', () => {
  it.each([
    ['nothing', 'photo.jpg', new Uint8Array(), 'file.empty'],
    ['a program renamed to .jpg', 'photo.jpg', Uint8Array.of(0x4d, 0x5a, 0x90, 0, 3), 'file.kind'],
    ['a page of the web', 'note.pdf', new TextEncoder().encode('<html><script>'), 'file.kind'],
    ['a drawing', 'frame.svg', new TextEncoder().encode('<svg onload="x()">'), 'file.kind'],
  ])('refuse %s', async (_, name, bytes, code) => expect(refusedWith(await keep(name, bytes))).toEqual([code]));

  it('refuse a photo of 40 MB, and keep one of 15', async () => {
    const large = (mb: number) => {
      const bytes = new Uint8Array(mb * 1024 * 1024);
      bytes.set(JPEG);
      return bytes;
    };
    expect(refusedWith(await keep('photo.jpg', large(40)))).toEqual(['file.large']);
    must(await keep('photo.jpg', large(15)));
  });

  it('are known by what they hold, whatever they are called, and taken out again', async () => {
    const { id, name } = must(await keep('IMG 0042', JPEG));
    expect(name).toBe('IMG 0042.jpg');
    const { actor } = await yard.as('storekeeper');
    expect(await loadDockPaper(yard.db, actor, id)).toMatchObject({ type: 'image/jpeg' });
    const papers = async () => (await loadDockOrder(yard.db, actor, number))?.receipts[0]?.papers.map((p) => p.name);
    expect(await papers()).toEqual(['IMG 0042.jpg']);
    must(await removePaper(await yard.as('storekeeper'), { documentId: id }));
    expect(await papers()).toEqual([]);
  });

  it('of a line that wants a certificate: it is missing until it is attached', async () => {
    await yard.db('item').where({ id: dock.tube }).update({ certificate: 1 });
    const { actor } = await yard.as('storekeeper');
    const line = async () => (await loadDockOrder(yard.db, actor, number))?.lines[0];
    expect((await line())?.certificate).toBe('wanted');
    const pdf = new TextEncoder().encode('%PDF-1.7 certificate');
    must(await keep('3.1.pdf', pdf, 'certificate', (await line())?.id));
    expect((await line())?.certificate).toBe('here');
  });

  it('are about something that is there', async () =>
    expect(refusedWith(await keep('photo.jpg', JPEG, 'receipt', 9999))).toEqual(['missing']));
});
