import { openChecks, sheetChecks } from './checks.ts';

const PROFILED = { printMode: 'colour through a profile', mediaSetting: 'heavy matt' };
const ASKED = ['coated side', 'flat corners', 'media setting', 'colour management off', 'gloves'];

test('the first sheet of a session is checked in everything, the next alike one in what its own hands do', () => {
  expect(sheetChecks(PROFILED)).toEqual(ASKED);
  expect(sheetChecks(PROFILED, PROFILED)).toEqual(['coated side', 'flat corners', 'gloves']);
  expect(sheetChecks(PROFILED, { ...PROFILED, mediaSetting: 'gloss' })).toEqual(ASKED);
  expect(sheetChecks({ ...PROFILED, printMode: 'neutral' }, PROFILED)).not.toContain('colour management off');
});

test('a sheet waits for what can spoil it, and for no more', () => {
  const state = {
    differs: ['mediaSetting', 'feed', 'intent'] as const,
    carriedOver: ['mediaSetting', 'feed', 'printer'],
    session: { checked: ['nozzle check'], asked: ASKED, sheetChecked: ['coated side', 'flat corners'] },
  };
  expect(openChecks({ ...state, session: undefined })).toEqual({ checks: [], settings: ['mediaSetting', 'feed'] });
  // The media setting is checked at the driver and not twice; the intent was looked at; gloves spoil nothing by themselves.
  expect(openChecks(state)).toEqual({ checks: ['media setting', 'colour management off'], settings: ['feed'] });
  expect(openChecks({ ...state, session: { ...state.session, checked: [] } }).checks).toContain('nozzle check');
  expect(openChecks({ ...state, session: undefined, boxProposed: true }).checks).toEqual(['box']);
  const all = { ...state.session, sheetChecked: ASKED };
  expect(openChecks({ ...state, carriedOver: ['mediaSetting'], session: all })).toEqual({ checks: [], settings: [] });
});
