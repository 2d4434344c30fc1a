import { boxOfNumber, type BoxKnown } from './edition.ts';

const known = (over: Partial<BoxKnown>): BoxKnown => ({
  edition: 'spring',
  accepted: [],
  ofPrint: '',
  entered: '',
  first: false,
  ...over,
});

describe('the box of a number', () => {
  it('is that of its print, whatever the edition is locked to', () => {
    expect(boxOfNumber(known({ ofPrint: 'spring' }))).toEqual({ batch: 'spring', locks: false });
    expect(boxOfNumber(known({ ofPrint: 'autumn' }))).toEqual({ refused: 'another box', batch: 'autumn' });
    expect(boxOfNumber(known({ ofPrint: 'autumn', entered: 'spring' }))).toEqual({
      refused: 'contradicts',
      batch: 'autumn',
    });
  });
  it('that is not known is asked for, and never taken for the edition’s', () => {
    expect(boxOfNumber(known({}))).toEqual({ refused: 'not known' });
    expect(boxOfNumber(known({ entered: 'spring' }))).toEqual({ batch: 'spring', locks: false });
    // Nothing is known of the edition’s either: unknown joins unknown.
    expect(boxOfNumber(known({ edition: '' }))).toEqual({ batch: '', locks: false });
  });
  it('joins once somebody accepted it', () => {
    expect(boxOfNumber(known({ ofPrint: 'autumn', accepted: ['autumn'] }))).toEqual({ batch: 'autumn', locks: false });
    expect(boxOfNumber(known({ entered: 'winter', accepted: ['autumn'] }))).toEqual({
      refused: 'another box',
      batch: 'winter',
    });
  });
  it('locks an edition that begins with it, and no later one', () => {
    expect(boxOfNumber(known({ edition: '', ofPrint: 'autumn', first: true }))).toEqual({
      batch: 'autumn',
      locks: true,
    });
    expect(boxOfNumber(known({ edition: '', ofPrint: 'autumn' }))).toEqual({ refused: 'another box', batch: 'autumn' });
  });
});
