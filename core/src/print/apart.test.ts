import { whatPartsThem, type NamedCondition } from './apart.ts';

const one: NamedCondition = {
  id: 'a',
  paperId: 'p',
  printer: 'P10',
  inkSet: 'own',
  blackInk: 'photo black',
  mediaSetting: 'Gloss',
  resolution: '720 dpi',
  printMode: 'colour through a profile',
  profile: 'own.icc',
  blackOvercoat: false,
};

describe('conditions that a list would call alike', () => {
  it('are told by what parts them', () => {
    const said = whatPartsThem([
      one,
      { ...one, id: 'b', inkSet: 'refill', profile: '' },
      { ...one, id: 'c', paperId: 'q' },
    ]);
    expect(said.get('a')).toBe('own, own.icc');
    expect(said.get('b')).toBe('refill, no profile');
    expect(said.has('c')).toBe(false);
  });

  it('and where nothing does, by their number', () => {
    expect([...whatPartsThem([one, { ...one, id: 'b' }]).values()]).toEqual(['no. 1', 'no. 2']);
  });
});
