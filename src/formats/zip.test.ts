import JSZip from 'jszip';
import { zip } from './zip';

const bytes = (text: string) => new TextEncoder().encode(text);

/** The package jszip as second opinion on what fflate bundles. */
describe('files in one archive', () => {
  it('come out as they went in, two of one name apart', async () => {
    const archive = zip([
      { name: 'K26-0001.pdf', bytes: bytes('%PDF-1') },
      { name: 'frame.dxf', bytes: bytes('one') },
      { name: 'Frame.DXF', bytes: bytes('two') },
      { name: 'Zeichnung ü.dxf', bytes: bytes('drei') },
    ]);
    const read = await JSZip.loadAsync(archive);
    const told = await Promise.all(Object.values(read.files).map(async (f) => [f.name, await f.async('string')]));
    expect(told).toEqual([
      ['K26-0001.pdf', '%PDF-1'],
      ['frame.dxf', 'one'],
      ['Frame (2).DXF', 'two'],
      ['Zeichnung ü.dxf', 'drei'],
    ]);
  });
});
