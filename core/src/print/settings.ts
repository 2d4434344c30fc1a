/** A setting of a print as it is said and written. */
interface SettingWords {
  readonly name: string;
  /** How it is entered: a word of the printer's own list, one of a fixed few, a number, or yes and no. */
  readonly entry: 'word' | 'choice' | 'number' | 'yes or no';
  readonly unit?: string;
  /** Fixed by the print condition; the others go with the paper on the printer. */
  readonly fixed?: true;
  /** Goes with the picture and not with the printer: another picture’s last sheet says nothing about it. */
  readonly ofPicture?: true;
}

/** Every setting a print is made with, in the order in which they are looked at. */
export const SETTINGS = {
  printer: { name: 'Printer', entry: 'word', fixed: true },
  inkSet: { name: 'Ink set', entry: 'word', fixed: true },
  blackInk: { name: 'Black ink', entry: 'choice', fixed: true },
  mediaSetting: { name: 'Media setting', entry: 'word', fixed: true },
  resolution: { name: 'Resolution', entry: 'word', fixed: true },
  printMode: { name: 'Print mode', entry: 'choice', fixed: true },
  profile: { name: 'Profile', entry: 'word', fixed: true },
  intent: { name: 'Rendering intent', entry: 'choice' },
  blackPointCompensation: { name: 'Black point compensation', entry: 'yes or no' },
  blackOvercoat: { name: 'Extra black overcoat', entry: 'yes or no', fixed: true },
  liftStops: { name: 'Lift', entry: 'number', unit: 'stops', ofPicture: true },
  sharpening: { name: 'Sharpening', entry: 'word', ofPicture: true },
  feed: { name: 'Feed', entry: 'word' },
  direction: { name: 'Direction', entry: 'word' },
  headHeight: { name: 'Head height', entry: 'word' },
  suction: { name: 'Suction', entry: 'word' },
  dryingMinutes: { name: 'Drying', entry: 'number', unit: 'min', ofPicture: true },
} as const satisfies Record<string, SettingWords>;

export type SettingKey = keyof typeof SETTINGS;
export const SETTING_KEYS = Object.keys(SETTINGS) as SettingKey[];
export type SettingValue = string | number | boolean;
export type SettingValues = Readonly<Partial<Record<SettingKey, SettingValue>>>;

/** A setting as it is written on the back of a print. */
export function written(key: SettingKey, value: SettingValue | undefined): string {
  const { unit } = SETTINGS[key] as SettingWords;
  if (value === undefined || value === '') return 'not said';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (key === 'liftStops') return `${Number(value) > 0 ? '+' : ''}${value} ${unit}`;
  return unit ? `${value} ${unit}` : String(value);
}
