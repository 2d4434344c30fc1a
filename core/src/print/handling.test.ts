import { feedCautions, fedByNone, feedPaths, type Fed } from './handling.ts';

const fed = (over: Partial<Fed>): Fed => ({
  feed: 'auto',
  takes: 'well',
  headHeight: '',
  suction: '',
  corners: 0,
  borderless: false,
  customSizes: false,
  by: 'Ines',
  takenAt: '2026-11-20T10:00:00Z',
  ...over,
});

describe('what a sheet is like in a printer', () => {
  it('is told by the newest word of each path, and of no other', () => {
    const paths = feedPaths([fed({ takes: 'not' }), fed({ takes: 'care' }), fed({ feed: 'rear' })]);
    expect([...paths].map(([key, f]) => [key, f.takes])).toEqual([
      ['auto', 'care'],
      ['rear', 'well'],
    ]);
    expect(feedCautions(paths, 'front straight path')).toEqual([]);
    expect(feedCautions(paths, 'Auto feeder').join()).toMatch(/auto feeder takes it with care \(Ines, 2026-11-20\)/);
  });

  it('becomes cautions where the hands are: height, suction, corners, stack, the core, a part-used roll', () => {
    const heavy = fed({ feed: 'rear', headHeight: 'wide', suction: 'low', corners: 3 });
    const said = feedCautions(feedPaths([heavy]), 'rear single').join(' ');
    for (const word of ['head height wide', 'suction low', 'clear']) expect(said).toContain(word);
    expect(feedCautions(feedPaths([fed({ stack: 12 })]), 'auto feeder').join()).toContain('At most 12 sheets');
    const roll = feedCautions(feedPaths([fed({ feed: 'roll', coreCurl: 4, reloads: false })]), 'roll').join(' ');
    expect(roll).toContain('last metres at the core');
    expect(roll).toContain('not taken again');
    expect(feedCautions(feedPaths([fed({})]), 'auto feeder')).toEqual([]);
  });

  it('is refused only where every way was tried and none took it', () => {
    const not = (...feeds: Fed['feed'][]) => feedPaths(feeds.map((feed) => fed({ feed, takes: 'not' })));
    expect(fedByNone(not('auto', 'rear'))).toBe(false);
    expect(fedByNone(not('auto', 'rear', 'front'))).toBe(true);
    expect(fedByNone(feedPaths([...not('auto', 'rear', 'front').values(), fed({ feed: 'roll' })]))).toBe(false);
  });
});
