import type { MeasurementCondition } from '../measurement/reading.ts';

export interface HeaderFacts {
  readonly condition?: MeasurementCondition;
  readonly instrument?: string;
  readonly backing?: 'white' | 'black';
  readonly createdAt?: string;
  readonly description?: string;
}

/** What a CGATS header says of the measurement. Only what is written is taken; nothing is guessed. */
export function readHeader(keywords: ReadonlyMap<string, string>): HeaderFacts {
  const get = (...names: string[]) => names.map((n) => keywords.get(n)).find((v) => v !== undefined && v !== '');
  const how = [
    'MEASUREMENT_CONDITION',
    'MEASUREMENT_SOURCE',
    'INSTRUMENTATION',
    'FILTER',
    'WEIGHTING_FUNCTION',
    'ILLUMINATION_NAME',
    'MEASUREMENT_MODE',
  ]
    .map((n) => keywords.get(n) ?? '')
    .join('\n');
  const backing = `${get('SAMPLE_BACKING') ?? ''}\n${how}`;
  return {
    condition: conditionIn(how),
    instrument: get('INSTRUMENTATION', 'INSTRUMENT', 'TARGET_INSTRUMENT'),
    backing: /white|\bwb\b/i.test(backing) ? 'white' : /black|\bbb\b/i.test(backing) ? 'black' : undefined,
    createdAt: get('CREATED', 'MEASUREMENT_DATE', 'PROD_DATE'),
    description: get('DESCRIPTOR', 'FILE_DESCRIPTOR', 'PRINT_CONDITIONS'),
  };
}

function conditionIn(text: string): MeasurementCondition | undefined {
  const named = /\bM([0-3])\b/i.exec(text) ?? /MeasurementCondition=?\s*M([0-3])/i.exec(text);
  if (named) return `M${named[1]}` as MeasurementCondition;
  if (/uv[ -]?(cut|exclu|filter|off)|without uv/i.test(text)) return 'M2';
  if (/gas[ -]?filled tungsten|tungsten/i.test(text)) return 'M0';
  return undefined;
}
