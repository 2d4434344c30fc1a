import { lineRuns, unsetLetters } from '@rakuen/server/drawing/line-runs';
import { newPdf, lineWidth } from '@rakuen/server/drawing/pdf';

const texts = (line: string) => lineRuns(line, 'serif').map((r) => r.text);

describe('a line in any script', () => {
  it.each([
    ['Korean', '소금 평원의 정오'],
    ['Arabic', 'ملح الظهيرة'],
    ['Hebrew', 'מלח בצהריים'],
    ['Devanagari', 'नमक का मैदान'],
    ['Thai', 'ที่ราบเกลือ'],
    ['Japanese', '塩の平原'],
    ['Greek', 'Αλάτι'],
    ['Cyrillic', 'Соль в полдень'],
    ['Czech', 'Sůl v poledne žluťoučký'],
  ])('%s is set whole', (_, title) => {
    expect(unsetLetters(title, 'serif')).toEqual([]);
    expect(texts(title).join('')).not.toContain('?');
    expect([...texts(title).join('')].sort()).toEqual([...title].sort());
  });

  it('what no face has is named, each once, and not passed over', () => {
    expect(unsetLetters('a😀b😀c𐌰', 'serif')).toEqual(['😀', '𐌰']);
    expect(texts('a😀b').join('')).toBe('a?b');
  });

  it('right-to-left words go from right to left, numbers among them from left to right', () => {
    const hebrew = ['מלח', 'בצהריים'];
    // As it is typed: salt, noon, 12. As it is set from the left: 12, noon, salt.
    const set = texts(`${hebrew[0]} ${hebrew[1]} 12`).map((t) => t.trim());
    const at = (word: string) => set.findIndex((t) => t.includes(word));
    expect(at('12')).toBeLessThan(at(hebrew[1]));
    expect(at(hebrew[1])).toBeLessThanOrEqual(at(hebrew[0]));
    // Among Latin words the line goes on from the left.
    const mixed = texts(`Salt (${hebrew[0]}) 3/12`);
    expect(mixed[0]).toBe('Salt (');
    expect(mixed.at(-1)).toContain('3/12');
  });

  it('numbers in Arabic digits are read from left to right, as the others', () => {
    // The engine sets Arabic digits from the right: handed over backwards they come out as they are read.
    expect(texts('ملح ٢٠٢٦')).toContain([...'٢٠٢٦'].reverse().join(''));
    expect(texts('Salt 2026')).toEqual(['Salt 2026']);
  });

  it('joined letters are narrower than single ones: Arabic is shaped, and marks take no room of their own', () => {
    const document = newPdf();
    const width = (text: string) => lineWidth(document, text, 12, 'serif');
    const letters = ['م', 'ل', 'ح', 'ظ', 'ه'];
    expect(width(letters.join(''))).toBeLessThan(letters.reduce((sum, l) => sum + width(l), 0) - 1);
    expect(width('ที่')).toBeCloseTo(width('ท'), 1);
    // क and ्ष become one sign.
    expect(width('क्ष')).toBeLessThan(width('क') + width('ष') - 1);
  });
});
