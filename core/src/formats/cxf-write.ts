import type { MeasurementCondition, Reading } from '../measurement/reading.ts';

const NAMESPACE = 'http://colorexchangeformat.com/CxF3-core';

/** How the light of each measurement condition is named in the file. */
const ILLUMINATION: Record<MeasurementCondition, string> = {
  M0: 'M0_Incandescent',
  M1: 'M1_Daylight',
  M2: 'M2_UVExcluded',
  M3: 'M3_PolarizingFilter',
};

const escaped = (text: string) =>
  text
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;')
    .replace(/[\t\r\n]+/g, ' ');
const plain = (value: number, digits: number) => String(Number(value.toFixed(digits)) + 0);

/**
 * Readings of one sheet as CxF3 (ISO 17972): objects with device values, spectra where there are any, and CIELAB (D50,
 * 2°). Several readings are several measurement conditions of the same patches in the same order; each object then
 * holds a value for each.
 */
export function writeCxf(first: Reading, ...companions: Reading[]): string {
  const readings = [first, ...companions];
  if (readings.some((r) => r.patches.length !== first.patches.length))
    throw new RangeError('readings of one sheet hold the same patches');
  const objects = first.patches.map((p, i) => {
    const values = readings.map((r) => colourValues(r, i)).join('');
    return element(
      'Object',
      element('ColorValues', values) + (first.deviceSpace && p.device ? deviceValues(first, p.device) : ''),
      ` ObjectType="Target" Name="${escaped(p.id)}" Id="o${i + 1}"`,
    );
  });
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<cc:CxF xmlns:cc="${NAMESPACE}">`,
    element(
      'FileInformation',
      (first.createdAt ? element('CreationDate', escaped(first.createdAt)) : '') +
        (first.description ? element('Description', escaped(first.description)) : ''),
    ),
    '<cc:Resources>',
    '<cc:ObjectCollection>',
    ...objects,
    '</cc:ObjectCollection>',
    '<cc:ColorSpecificationCollection>',
    ...readings.map(specificationOf),
    '</cc:ColorSpecificationCollection>',
    '</cc:Resources>',
    '</cc:CxF>',
    '',
  ].join('\n');
}

const element = (name: string, body: string, attributes = '') => `<cc:${name}${attributes}>${body}</cc:${name}>`;
const nameOf = ({ condition }: Reading) => `CS_${condition ?? 'unstated'}`;

function deviceValues({ deviceSpace }: Reading, values: readonly number[]): string {
  return element(
    'DeviceColorValues',
    deviceSpace === 'RGB'
      ? element(
          'ColorRGB',
          ['R', 'G', 'B'].map((n, i) => element(n, plain(values[i]! * 255, 4))).join(''),
          ' MaxRange="255"',
        )
      : element(
          'ColorCMYK',
          ['Cyan', 'Magenta', 'Yellow', 'Black'].map((n, i) => element(n, plain(values[i]! * 100, 4))).join(''),
        ),
  );
}

function colourValues(reading: Reading, patch: number): string {
  const { lab, reflectance } = reading.patches[patch]!;
  const under = ` ColorSpecification="${nameOf(reading)}"`;
  const grid = reading.spectralGrid;
  const spectrum =
    grid && reflectance
      ? element(
          'ReflectanceSpectrum',
          reflectance.map((r) => plain(r, 6)).join(' '),
          `${under} StartWL="${grid.startNm}"`,
        )
      : '';
  return (
    spectrum + element('ColorCIELab', ['L', 'A', 'B'].map((n, c) => element(n, plain(lab[c]!, 4))).join(''), under)
  );
}

function specificationOf(reading: Reading): string {
  const { spectralGrid: grid, condition } = reading;
  const measurement = [
    element('MeasurementType', 'Spectrum_Reflectance'),
    grid ? `<cc:WavelengthRange StartWL="${grid.startNm}" Increment="${grid.stepNm}"/>` : '',
    reading.backing ? element('Backing', reading.backing === 'white' ? 'White' : 'Black') : '',
    element(
      'Device',
      (reading.instrument ? element('Model', escaped(reading.instrument)) : '') +
        (condition ? element('DeviceIllumination', ILLUMINATION[condition]) : ''),
    ),
  ].join('');
  return element(
    'ColorSpecification',
    element('TristimulusSpec', element('Illuminant', 'D50') + element('Observer', '2_Degree')) +
      element('MeasurementSpec', measurement),
    ` Id="${nameOf(reading)}"`,
  );
}
