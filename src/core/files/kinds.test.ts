import { LIMITS } from '../limits';
import { fileFault, fileName, nameOfFile, typeOf } from './kinds';

const bytes = (text: string) => new TextEncoder().encode(text);
const code = (name: string, of: Uint8Array) => fileFault(name, of)?.code;

describe('a file that is to go with an order', () => {
  it.each([
    ['frame.pdf', bytes('%PDF-1.7'), undefined],
    ['FRAME.PDF', bytes('%PDF-1.7'), undefined],
    ['frame.dxf', bytes('  0\nSECTION'), undefined],
    ['frame.step', bytes('ISO-10303-21;'), undefined],
    ['list.csv', bytes('a,b'), undefined],
    ['frame.pdf', bytes('<html>'), 'file.other'],
    ['frame.png', bytes('GIF89a'), 'file.other'],
    ['frame.pdf', bytes(''), 'file.empty'],
    ['frame.exe', bytes('MZ\x90'), 'file.program'],
    ['drawing.dxf', bytes('MZ\x90'), 'file.program'],
    ['drawing.txt', bytes('#!/bin/sh'), 'file.program'],
    ['drawing.dxf', new Uint8Array([0x7f, 0x45, 0x4c, 0x46]), 'file.program'],
    ['page.html', bytes('<html>'), 'file.kind'],
    ['page.svg', bytes('<svg>'), 'file.kind'],
    ['drawing', bytes('x'), 'file.kind'],
    ['big.pdf', new Uint8Array(LIMITS.attached + 1), 'file.large'],
  ])('%s is looked at by its name and its beginning', (name, of, expected) => expect(code(name, of)).toBe(expected));

  it('says its name, and what is wrong', () =>
    expect(fileFault('big.pdf', new Uint8Array(30 * 1024 * 1024))?.message).toBe('big.pdf is larger than 20 MB.'));

  it.each([
    ['C:\\drawings\\frame.dxf', 'frame.dxf'],
    ['../../etc/passwd', 'passwd'],
    ['.hidden.pdf', 'hidden.pdf'],
    ['a\u202efdp.exe', 'afdp.exe'],
    ['na"me\r\n.pdf', 'name.pdf'],
    ['   ', ''],
  ])('%j is called %j', (given, name) => expect(fileName(given)).toBe(name));

  it('has a type by its name, and a name with its revision', () => {
    expect([typeOf('a.PDF'), typeOf('a.none')]).toEqual(['application/pdf', 'application/octet-stream']);
    expect([nameOfFile({ name: 'f.dxf', revision: 'C' }), nameOfFile({ name: 'f.dxf', revision: '' })]).toEqual([
      'f.dxf (rev. C)',
      'f.dxf',
    ]);
  });
});
