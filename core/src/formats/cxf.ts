import { asThree } from '../colour/three.ts';
import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { labToXyz, xyzToLab } from '../colour/lab.ts';
import { illuminantWhite, spectrumToXyz } from '../colour/spectrum.ts';
import type { DeviceSpace, MeasurementCondition, PatchReading, SpectralGrid } from '../measurement/reading.ts';
import { decodeLines } from './decode-text.ts';
import { FormatError } from './format-error.ts';
import type { ImportedReading } from './imported-reading.ts';
import { refuseImplausible, type PatchPlace } from './plausible.ts';

/** An element as the parser gives it: attributes begin with @, text stands under #text. */
type Element = { readonly [name: string]: Node };
type Node = string | Element | readonly Node[] | undefined;

const MAX_OBJECTS = 100_000;
/** Characters of one tag. */
const MOST = { tag: 200_000 } as const;

const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  removeNSPrefix: true,
  parseTagValue: false,
  parseAttributeValue: false,
  // Nothing here asks where in the tree it stands, and to say so costs a tenth of the time.
  jPath: false,
  // No entity but XML's own five is expanded: nothing in the file can make it grow.
  processEntities: { enabled: true, maxTotalExpansions: 100_000, maxEntityCount: 0 },
});

/**
 * Readings from a CxF3 file (ISO 17972): objects with reflectance spectra, CIELAB or XYZ, and RGB or CMYK device values. Spectra under
 * several colour specifications (M0, M1 and M2 read in one pass) give a reading each.
 * @throws FormatError for broken XML, another vocabulary, or values that can't be read
 */
export function readingsFromCxf(bytes: Uint8Array): ImportedReading[] {
  const { lines, encoding } = decodeLines(bytes);
  // The text is decoded by now: what it says of its own encoding no longer holds.
  const text = lines.join('\n').replace(/^(\s*<\?xml[^>]{0,200}?)\s+encoding=("[^"]*"|'[^']*')/i, '$1');
  refuseTangled(text);
  const sound = XMLValidator.validate(text);
  if (sound !== true) {
    throw new FormatError({
      message: `The XML is broken: ${sound.err.msg.replace(/\.$/, '')}.`,
      line: sound.err.line,
      remedy: 'The file may be cut short. Export it again.',
    });
  }
  let document: Element;
  try {
    document = parser.parse(text) as Element;
  } catch (error) {
    throw new FormatError({
      message: `The XML can’t be read: ${(error as Error).message.slice(0, 120)}.`,
      remedy: 'Export the readings again as CxF3.',
    });
  }
  const root = child(document, 'CxF');
  const resources = child(root, 'Resources');
  const objects = children(child(resources, 'ObjectCollection'), 'Object');
  if (!root || objects.length === 0) {
    throw new FormatError({
      message: 'There are no colour objects in this XML file.',
      field: 'CxF/Resources/ObjectCollection/Object',
      remedy: 'Choose a CxF3 file (ISO 17972), or export the readings as CGATS text.',
    });
  }
  if (objects.length > MAX_OBJECTS)
    throw new FormatError({
      message: `The file holds ${objects.length} objects; ${MAX_OBJECTS} is the most.`,
      remedy: 'Split the file.',
    });

  const specifications = new Map(
    children(child(resources, 'ColorSpecificationCollection'), 'ColorSpecification').map((s) => [
      attribute(s, 'Id') ?? '',
      s,
    ]),
  );
  const used = [
    ...new Set(objects.flatMap((o) => colourNodes(o).map((n) => attribute(n, 'ColorSpecification') ?? ''))),
  ];
  const information = child(root, 'FileInformation');

  return used.map((id): ImportedReading => {
    const specification = specifications.get(id);
    const grid = {
      startNm: Number(attribute(child(child(specification, 'MeasurementSpec'), 'WavelengthRange'), 'StartWL')),
      stepNm: Number(attribute(child(child(specification, 'MeasurementSpec'), 'WavelengthRange'), 'Increment')),
    };
    const patches = objects.flatMap((o, i) => patchOf(o, i, id, grid) ?? []);
    if (patches.length === 0)
      throw new FormatError({
        message: `No object holds a colour under the specification “${id}”.`,
        field: 'ColorValues',
        remedy: 'Export the measured colour with the readings.',
      });
    const spectral = patches.every((p) => p.grid);
    const spaces = new Set(patches.map((p) => p.space));
    const deviceSpace = spaces.size === 1 ? [...spaces][0] : undefined;
    const device = child(child(specification, 'MeasurementSpec'), 'Device');
    const condition = conditionOf(`${textOf(child(device, 'DeviceIllumination'))} ${id}`);
    const instrument =
      [textOf(child(device, 'Manufacturer')), textOf(child(device, 'Model'))].filter(Boolean).join(' ') || undefined;
    const backing = textOf(child(child(specification, 'MeasurementSpec'), 'Backing'));
    const missing = [
      ...(deviceSpace
        ? []
        : ['Device values: white is taken as the lightest patch, black as the darkest; no neutral ramp.']),
      ...(spectral ? [] : ['Spectra: colour can’t be computed for another light.']),
      ...(condition ? [] : ['Measurement condition (M0, M1, M2): choose it below, or it stays unstated.']),
      ...(instrument ? [] : ['Instrument.']),
    ];
    return {
      reading: {
        patches: patches.map(({ patch }) => (deviceSpace ? patch : { ...patch, device: undefined })),
        deviceSpace,
        spectralGrid: spectral ? patches[0]!.grid : undefined,
        colourFrom: spectral ? 'spectrum' : patches[0]!.from,
        condition,
        instrument,
        backing: /white/i.test(backing) ? 'white' : /black/i.test(backing) ? 'black' : undefined,
        createdAt: textOf(child(information, 'CreationDate')) || undefined,
        description: textOf(child(information, 'Description')) || undefined,
      },
      recognised: [
        `CxF3, ${encoding}`,
        `${patches.length} patches`,
        ...(used.length > 1 ? [`one of ${used.length} colour specifications, ${id}`] : []),
        ...(deviceSpace ? [`${deviceSpace} device values`] : []),
        ...(spectral
          ? [`reflectance from ${patches[0]!.grid!.startNm} nm every ${patches[0]!.grid!.stepNm} nm`]
          : [patches[0]!.from === 'Lab' ? 'L*a*b*' : 'XYZ']),
      ],
      missing,
      columns: ['Object', ...(deviceSpace ? ['DeviceColorValues'] : []), 'ColorValues'],
    };
  });
}

interface Patch {
  readonly patch: PatchReading;
  readonly space?: DeviceSpace;
  readonly grid?: SpectralGrid;
  readonly from: 'Lab' | 'XYZ';
}

const white = illuminantWhite();

function patchOf(
  object: Element,
  index: number,
  specification: string,
  range: { startNm: number; stepNm: number },
): Patch | undefined {
  const id = attribute(object, 'Name') || attribute(object, 'Id') || String(index + 1);
  const under = (name: string) =>
    children(child(object, 'ColorValues'), name).find(
      (n) => (attribute(n, 'ColorSpecification') ?? '') === specification,
    );
  const spectrum = under('ReflectanceSpectrum');
  const lab = under('ColorCIELab');
  const xyz = under('ColorCIEXYZ');
  if (!spectrum && !lab && !xyz) return undefined;
  const device = deviceOf(object, id);
  if (spectrum) {
    const reflectance = textOf(spectrum)
      .trim()
      .split(/\s+/)
      .map((v) => number(v, id, 'ReflectanceSpectrum'));
    const startNm = Number(attribute(spectrum, 'StartWL') ?? range.startNm);
    const stepNm = Number(attribute(spectrum, 'Increment') ?? range.stepNm);
    if (!(startNm >= 300 && startNm <= 430) || !(stepNm > 0) || startNm + stepNm * (reflectance.length - 1) < 650) {
      throw new FormatError({
        message: `The spectrum of ${id} does not say where it lies, or covers too little (${reflectance.length} values from ${startNm} nm every ${stepNm} nm).`,
        field: 'ReflectanceSpectrum',
        remedy: 'Export StartWL with each spectrum and Increment in the colour specification; 430–650 nm is the least.',
      });
    }
    const computed = spectrumToXyz({ startNm, stepNm, values: reflectance });
    refuseImplausible(xyzToLab(computed, white), reflectance, placeOf(id, startNm, stepNm));
    return {
      patch: { id, device: device?.values, reflectance, xyz: computed, lab: xyzToLab(computed, white) },
      space: device?.space,
      grid: { startNm, stepNm, count: reflectance.length },
      from: 'Lab',
    };
  }
  const read = (node: Element, names: readonly string[]) => names.map((n) => number(textOf(child(node, n)), id, n));
  const labs = lab && asThree(read(lab, ['L', 'A', 'B']));
  const xyzs = xyz && asThree(read(xyz, ['X', 'Y', 'Z']));
  refuseImplausible(labs ?? xyzToLab(xyzs!), undefined, placeOf(id, 0, 0));
  return {
    patch: { id, device: device?.values, lab: labs ?? xyzToLab(xyzs!), xyz: xyzs ?? labToXyz(labs!) },
    space: device?.space,
    from: labs ? 'Lab' : 'XYZ',
  };
}

const placeOf = (id: string, startNm: number, stepNm: number): PatchPlace => ({
  patch: id,
  lab: ['ColorCIELab/L', 'ColorCIELab/A', 'ColorCIELab/B'],
  band: (i) => `ReflectanceSpectrum, ${startNm + i * stepNm} nm`,
});

/** Runs of brackets and tags without an end cost a parser time that grows with their square: they are refused in one pass. */
function refuseTangled(text: string): void {
  let line = 1;
  let open = -1;
  let closing: string | undefined;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (c === 0x0a) line++;
    // What stands in a comment or in character data is no tag.
    if (open >= 0 && closing) {
      if (c === 0x3e && text.endsWith(closing, i + 1)) open = -1;
      continue;
    }
    const fault =
      c === 0x3c && open >= 0
        ? 'A tag begins inside a tag'
        : open >= 0 && i - open > MOST.tag
          ? 'A tag does not end'
          : undefined;
    if (fault)
      throw new FormatError({
        message: `The XML is broken: ${fault}.`,
        line,
        remedy: 'The file may be cut short. Export it again.',
      });
    if (c === 0x3c && open < 0) [open, closing] = [i, closingOf(text, i)];
    else if (c === 0x3e) open = -1;
  }
}

const closingOf = (text: string, at: number) =>
  text.startsWith('<!--', at) ? '-->' : text.startsWith('<![CDATA[', at) ? ']]>' : undefined;

function deviceOf(object: Element, id: string): { space: DeviceSpace; values: number[] } | undefined {
  const values = child(object, 'DeviceColorValues');
  const rgb = child(values, 'ColorRGB');
  if (rgb) {
    const most = Number(attribute(rgb, 'MaxRange') ?? 255);
    return {
      space: 'RGB',
      values: ['R', 'G', 'B'].map((n) => share(number(textOf(child(rgb, n)), id, n) / most, id, n)),
    };
  }
  const cmyk = child(values, 'ColorCMYK');
  return (
    cmyk && {
      space: 'CMYK',
      values: ['Cyan', 'Magenta', 'Yellow', 'Black'].map((n) =>
        share(number(textOf(child(cmyk, n)), id, n) / 100, id, n),
      ),
    }
  );
}

function share(value: number, id: string, field: string): number {
  if (value < 0 || value > 1.005)
    throw new FormatError({
      message: `A device value of object ${id} is outside its range.`,
      field,
      remedy: 'RGB runs from 0 to MaxRange, CMYK from 0 to 100.',
    });
  return Math.min(1, value);
}

function number(text: string, id: string, field: string): number {
  const value = Number(text);
  if (text.trim() === '' || !Number.isFinite(value))
    throw new FormatError({
      message: `Object ${id}: “${text.slice(0, 40)}” is not a number.`,
      field,
      remedy: 'Correct the value, or read the patch again.',
    });
  return value;
}

const COLOURS = ['ReflectanceSpectrum', 'ColorCIELab', 'ColorCIEXYZ'] as const;
/** Colours of an object; where there are spectra, only those: the tristimulus values beside them follow from them. */
function colourNodes(object: Element): Element[] {
  const values = child(object, 'ColorValues');
  return COLOURS.map((name) => children(values, name)).find((nodes) => nodes.length > 0) ?? [];
}

function conditionOf(text: string): MeasurementCondition | undefined {
  const found = /(?:^|[^A-Za-z0-9])M([0-3])(?![0-9])/.exec(text.replaceAll('_', ' '));
  return found ? (`M${found[1]}` as MeasurementCondition) : undefined;
}

function children(parent: Element | undefined, name: string): Element[] {
  const node = parent?.[name];
  if (node === undefined) return [];
  return (Array.isArray(node) ? (node as Node[]) : [node]).map((n) =>
    typeof n === 'string' ? { '#text': n } : (n as Element),
  );
}

const child = (parent: Element | undefined, name: string): Element | undefined => children(parent, name)[0];
const attribute = (element: Element | undefined, name: string): string | undefined =>
  element?.[`@${name}`] as string | undefined;
const textOf = (element: Element | undefined): string => String(element?.['#text'] ?? '');
