import fc from 'fast-check';
import { readCode, recordCode } from './record-code.ts';

test('a code is the id in base 32 with the rest by 37 behind it', () => {
  const id = '01234567-89ab-4def-8000-000000000000';
  // The language's own base 32 goes by other letters: 4hkaps9 is 4HMASW9; the rest is its own as well.
  expect([(0x0123456789).toString(32), 0x0123456789 % 37]).toEqual(['4hkaps9', 29]);
  expect(recordCode(id)).toBe('04HM-ASW9-X');
  expect(readCode('04HM-ASW9-X')).toEqual({ idBegins: '01234567-89' });
  expect(readCode('o4hm asw9 x')).toEqual({ idBegins: '01234567-89' });
});

test('every id comes back from its code, and one wrong sign or two changed places are noticed', () => {
  fc.assert(
    fc.property(fc.uuid(), fc.nat(7), fc.nat(30), (id, at, by) => {
      const code = recordCode(id);
      expect(readCode(code.toLowerCase())).toEqual({ idBegins: id.slice(0, 11) });
      const typed = code.replaceAll('-', '');
      const all = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
      const wrong = all[(all.indexOf(typed[at]!) + 1 + by) % 32]!;
      expect(readCode(typed.slice(0, at) + wrong + typed.slice(at + 1))).toEqual({ misread: true });
      if (at < 7 && typed[at] !== typed[at + 1])
        expect(readCode(typed.slice(0, at) + typed[at + 1] + typed[at] + typed.slice(at + 2))).toEqual({
          misread: true,
        });
    }),
  );
});

test('words are no codes', () => {
  for (const text of ['', 'baryta', 'Winter light', '0123', '04HM-ASW9-XX', 'U4HMASW96'])
    expect(readCode(text)).toBeUndefined();
});
