import type { SettingKey, SettingValues } from './settings.ts';

/** A check at the printer, before a sheet goes in. */
interface Check {
  /** What happens to the sheet where it was left out (practice). */
  readonly spoils: string;
  /** A print is not marked as printed without it, or without a reason to leave it out. */
  readonly required: boolean;
  /** The setting it holds against the driver: checked here, it needs no second check in the record. */
  readonly covers?: SettingKey;
  /** Asked for a sheet only where this holds. @param before settings of the sheet before it in this session; absent for the first */
  readonly asked?: (settings: SettingValues, before?: SettingValues) => boolean;
}

/** Checks once a session, before the first sheet. */
export const SESSION_CHECKS = {
  'nozzle check': { spoils: 'A clogged nozzle prints bands.', required: true },
  'head alignment': { spoils: 'A head out of line prints soft edges.', required: false },
} as const satisfies Record<string, Check>;

const differs =
  (...keys: SettingKey[]) =>
  (settings: SettingValues, before?: SettingValues) =>
    !before || keys.some((key) => settings[key] !== before[key]);
const throughProfile = ({ printMode }: SettingValues) => printMode === 'colour through a profile';

/** Checks before each sheet. */
export const SHEET_CHECKS: Readonly<Record<string, Check>> = {
  'coated side': { spoils: 'The wrong side takes no ink.', required: true },
  'flat corners': { spoils: 'A lifted corner is struck by the head.', required: true },
  'media setting': {
    spoils: 'Another setting lays down too much ink, or too little.',
    required: true,
    covers: 'mediaSetting',
    asked: differs('mediaSetting'),
  },
  'colour management off': {
    spoils: 'The driver converts a second time.',
    required: true,
    covers: 'printMode',
    asked: (settings, before) => throughProfile(settings) && differs('printMode', 'mediaSetting')(settings, before),
  },
  gloves: { spoils: 'Bare fingers leave marks.', required: false },
};

/** Checks that are asked for a sheet, in the order in which they are done. */
export const sheetChecks = (settings: SettingValues, before?: SettingValues): string[] =>
  Object.keys(SHEET_CHECKS).filter((name) => SHEET_CHECKS[name]!.asked?.(settings, before) ?? true);

/** A sheet that is about to be marked as printed. */
export interface SheetState {
  /** Settings that differ from what went before. */
  readonly differs: readonly SettingKey[];
  /** Settings that were taken over and not checked. */
  readonly carriedOver: readonly string[];
  /** Its box was proposed from an earlier print and not confirmed. */
  readonly boxProposed?: boolean;
  /** Where it is part of a session at the printer: what was checked there. */
  readonly session?: {
    readonly checked: readonly string[];
    readonly asked: readonly string[];
    readonly sheetChecked: readonly string[];
  };
}

/** Settings that differ and were not checked, in the record or at the driver. */
export function uncheckedSettings({ differs, carriedOver, session }: SheetState): SettingKey[] {
  const covered = (session?.sheetChecked ?? []).map((name) => SHEET_CHECKS[name]?.covers);
  // A setting may differ from two things at once.
  return [...new Set(differs)].filter((key) => carriedOver.includes(key) && !covered.includes(key));
}

/** Checks that are still open and can spoil the sheet: of the session, of the sheet, then settings by their keys. */
export function openChecks(state: SheetState): { readonly checks: string[]; readonly settings: SettingKey[] } {
  const { session, boxProposed } = state;
  const open = (names: readonly string[], all: Readonly<Record<string, Check>>, done: readonly string[]) =>
    names.filter((name) => all[name]?.required && !done.includes(name));
  // A setting that is checked at the driver is not asked for a second time.
  const byCheck = (session?.asked ?? []).map((name) => SHEET_CHECKS[name]?.covers);
  return {
    checks: [
      ...(session ? open(Object.keys(SESSION_CHECKS), SESSION_CHECKS, session.checked) : []),
      ...(session ? open(session.asked, SHEET_CHECKS, session.sheetChecked) : []),
      ...(boxProposed ? ['box'] : []),
    ],
    settings: uncheckedSettings(state).filter((key) => !byCheck.includes(key)),
  };
}
