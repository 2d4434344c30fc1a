import type { MeasurementCondition, Reading } from '../measurement/reading.ts';

const NAMESPACE = 'http://colorexchangeformat.com/CxF3-core';

/** How the light of each measurement condition is named in the file. */
const ILLUMINATION: Record<MeasurementCondition, string> = { M0: 'M0_Incandescent', M1: 'M1_Daylight', M2: 'M2_UVExcluded', M3: 'M3_PolarizingFilter' };

const escaped = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;').replace(/[\t\r\n]+/g, ' ');
const plain = (value: number, digits: number) => String(Number(value.toFixed(digits)) + 0);

/** A reading as CxF3 (ISO 17972): objects with device values, spectra where there are any, and CIELAB (D50, 2°). */
export function writeCxf(reading: Reading): string {
  const { patches, deviceSpace, spectralGrid: grid, condition } = reading;
  const specification = `CS_${condition ?? 'unstated'}`;
  const element = (name: string, body: string, attributes = '') => `<cc:${name}${attributes}>${body}</cc:${name}>`;
  const device = (values: readonly number[]) =>
    element(
      'DeviceColorValues',
      deviceSpace === 'RGB'
        ? element('ColorRGB', ['R', 'G', 'B'].map((n, i) => element(n, plain(values[i] * 255, 4))).join(''), ' MaxRange="255"')
        : element('ColorCMYK', ['Cyan', 'Magenta', 'Yellow', 'Black'].map((n, i) => element(n, plain(values[i] * 100, 4))).join('')),
    );
  const objects = patches.map((p, i) => {
    const under = ` ColorSpecification="${specification}"`;
    const spectrum = grid && p.reflectance ? element('ReflectanceSpectrum', p.reflectance.map((r) => plain(r, 6)).join(' '), `${under} StartWL="${grid.startNm}"`) : '';
    const lab = element('ColorCIELab', ['L', 'A', 'B'].map((n, c) => element(n, plain(p.lab[c], 4))).join(''), under);
    return element('Object', element('ColorValues', spectrum + lab) + (deviceSpace && p.device ? device(p.device) : ''), ` ObjectType="Target" Name="${escaped(p.id)}" Id="o${i + 1}"`);
  });
  const measurement = [
    element('MeasurementType', 'Spectrum_Reflectance'),
    grid ? `<cc:WavelengthRange StartWL="${grid.startNm}" Increment="${grid.stepNm}"/>` : '',
    reading.backing ? element('Backing', reading.backing === 'white' ? 'White' : 'Black') : '',
    element('Device', (reading.instrument ? element('Model', escaped(reading.instrument)) : '') + (condition ? element('DeviceIllumination', ILLUMINATION[condition]) : '')),
  ].join('');
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<cc:CxF xmlns:cc="${NAMESPACE}">`,
    element('FileInformation', (reading.createdAt ? element('CreationDate', escaped(reading.createdAt)) : '') + (reading.description ? element('Description', escaped(reading.description)) : '')),
    '<cc:Resources>',
    '<cc:ObjectCollection>',
    ...objects,
    '</cc:ObjectCollection>',
    '<cc:ColorSpecificationCollection>',
    element('ColorSpecification', element('TristimulusSpec', element('Illuminant', 'D50') + element('Observer', '2_Degree')) + element('MeasurementSpec', measurement), ` Id="${specification}"`),
    '</cc:ColorSpecificationCollection>',
    '</cc:Resources>',
    '</cc:CxF>',
    '',
  ].join('\n');
}
