import { decoded } from './decode-text.js';

describe('the text of a file', () => {
  it('has its curly quotes, dashes and euro sign in Windows-1252', () => {
    // Code points of the index of windows-1252, WHATWG Encoding Standard: 0x80 is €, 0x93 and 0x94 are “ and ”, 0x96 is –.
    const bytes = Buffer.concat([
      Buffer.from([0x93]),
      Buffer.from('Zoë', 'latin1'),
      Buffer.from([0x94, 0x20, 0x96, 0x20, 0x80]),
    ]);
    expect(decoded(bytes)).toEqual({ text: '“Zoë” – €', encoding: 'windows-1252' });
  });

  it('is read in an older encoding that its letters tell of', () => {
    // Windows-1251, WHATWG Encoding Standard: Cyrillic capital and small letters from 0xC0 on, in the order of the alphabet.
    const cyrillic = (text: string) =>
      Buffer.from(
        [...text].map((sign) => (sign >= 'А' && sign <= 'я' ? sign.charCodeAt(0) - 0x410 + 0xc0 : sign.charCodeAt(0))),
      );
    const text =
      'Имя и адрес каждого участника стоят в отдельной строке. Сначала пишут фамилию, потом имя, потом адрес почты и номер группы.';
    expect(decoded(cyrillic(text))).toEqual({ text, encoding: 'windows-1251' });
  });

  it.each([
    ['UTF-8', Buffer.from('Zoë – €')],
    ['UTF-8', Buffer.from('\uFEFFZoë – €')],
    ['UTF-16', Buffer.from('\uFEFFZoë – €', 'utf16le')],
    ['UTF-16', Buffer.from('\uFEFFZoë – €', 'utf16le').swap16()],
  ])('is read from %s by its form, not by a guess', (encoding, bytes) => {
    expect(decoded(bytes)).toEqual({ text: 'Zoë – €', encoding });
  });

  it('is none in a file with zero bytes, or without any', () => {
    expect(() => decoded(new Uint8Array([0x41, 0, 0x42]))).toThrow('no text file');
    expect(() => decoded(new Uint8Array())).toThrow('empty');
  });
});
