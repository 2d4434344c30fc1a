import { readingsFromCxf } from './cxf.ts';
import { refuseImplausible } from './plausible.ts';

const AT = { patch: 'A1', line: 7, lab: ['LAB_L', 'LAB_A', 'LAB_B'], band: (i: number) => `${400 + 10 * i} nm` };

describe('What no instrument gives of a print', () => {
  it.each([
    [[140, 0, 0], undefined, 'LAB_L'],
    [[50, 260, 0], undefined, 'LAB_A'],
    [[50, 0, NaN], undefined, 'LAB_B'],
    [[50, 0, 0], [0.5, 42], '410 nm'],
  ] as const)('%j with %j is refused at its place', (lab, reflectance, field) => {
    expect(() => refuseImplausible([...lab], reflectance, AT)).toThrow(expect.objectContaining({ line: 7, field }));
  });

  it('lets a brightened white and a deep black pass', () => {
    expect(() => refuseImplausible([100.4, 2, -9], [1.12, 0.9], AT)).not.toThrow();
    expect(() => refuseImplausible([0.3, 0, 0], [-0.001, 0.002], AT)).not.toThrow();
  });
});

it('a file of tags without an end is refused at once', () => {
  const begun = performance.now();
  expect(() => readingsFromCxf(new TextEncoder().encode('<a '.repeat(300_000)))).toThrow('A tag begins inside a tag');
  expect(performance.now() - begun).toBeLessThan(2_000);
});

it('brackets in a comment or in character data are no tags', () => {
  const file = '<!-- a > b < c < d --><a><![CDATA[ x < y > z < w ]]></a>';
  expect(() => readingsFromCxf(new TextEncoder().encode(file))).toThrow(/^(?!.*A tag)/);
});
