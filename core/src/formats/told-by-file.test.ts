import { toldByFile } from './told-by-file.ts';

const NOTHING = { makers: [], printers: [], inkSets: [], mediaSettings: [] };
const KNOWN = {
  makers: ['Ostermoor', 'Vellacre'],
  printers: ['Corvane P10', 'Corvane P1'],
  inkSets: ['Deepset pigment, ten inks'],
  mediaSettings: ['Fine art matt', 'Matt'],
};

describe('what a file says of its paper and of how that was printed', () => {
  it('keywords are taken as they stand, whatever they are called by', () => {
    const told = toldByFile({
      fileName: 'a.txt',
      keywords: {
        PAPER: 'Dove Matt',
        PAPER_MAKER: 'Ostermoor',
        GRAMMAGE: '230 g/m²',
        Printer: 'Corvane P10',
        INK_SET: 'Deepset pigment, ten inks',
        BLACK_INK: 'Matte black',
        MEDIA_TYPE: 'Enhanced  matt',
        RESOLUTION: '1440',
      },
    });
    expect(told).toMatchObject({
      paper: 'Dove Matt',
      maker: 'Ostermoor',
      weightGsm: 230,
      printer: 'Corvane P10',
      inkSet: 'Deepset pigment, ten inks',
      blackInk: 'matt black',
      mediaSetting: 'Enhanced matt',
      resolution: '1440 dpi',
    });
    expect([...told.stated].sort()).toEqual(
      ['blackInk', 'inkSet', 'maker', 'mediaSetting', 'paper', 'printer', 'resolution', 'weightGsm'].sort(),
    );
  });

  it.each([
    ['slate_baryta_315gsm_1440x720dpi_M1.txt', { paper: 'slate baryta', weightGsm: 315, resolution: '1440 × 720 dpi' }],
    ['trays/Dove Matt 230 g - 2026-03-02 (2).cxf', { paper: 'Dove Matt', weightGsm: 230 }],
    ['Ostermoor Kelp Baryta M2 918 patches.txt', { paper: 'Ostermoor Kelp Baryta' }],
    ['M1.txt', { paper: undefined }],
  ])('of a name alone, %s: by its form, and nothing is called stated', (fileName, told) => {
    const found = toldByFile({ fileName }, NOTHING);
    expect({ paper: undefined, ...found }).toMatchObject(told);
    expect(found.stated).toEqual([]);
  });

  it('what is known here is found in a name, the longest word of it, and is no part of the paper’s', () => {
    expect(toldByFile({ fileName: 'ostermoor Dove, Corvane P10, fine art matt.txt' }, KNOWN)).toMatchObject({
      maker: 'Ostermoor',
      paper: 'Dove',
      printer: 'Corvane P10',
      mediaSetting: 'Fine art matt',
    });
  });

  it('a weight no paper has is none, and a keyword goes before the name', () => {
    expect(toldByFile({ fileName: 'Rag 5 g.txt' }, NOTHING).weightGsm).toBeUndefined();
    expect(toldByFile({ fileName: 'Rag 310 g.txt', keywords: { WEIGHT: '290' } }, NOTHING).weightGsm).toBe(290);
    expect(toldByFile({ fileName: 'Rag.txt', keywords: { MEDIA: 'Linen' } }, NOTHING).paper).toBe('Linen');
  });
});
