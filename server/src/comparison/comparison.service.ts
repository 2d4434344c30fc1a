import { today } from '@rakuen/core/day';
import { Injectable } from '@nestjs/common';
import { GLASSES } from '@rakuen/core/light/glass';
import { TABLE_LIGHTS, type ViewingLight } from '@rakuen/core/light/table-lights';
import { abOutline } from '@rakuen/core/gamut/outline';
import { differenceOf } from '@rakuen/core/measurement/difference';
import { litPrint } from '@rakuen/core/light/lit-print';
import type { PrintSpectra } from '@rakuen/core/light/print-spectra';
import { lighting } from '@rakuen/core/light/lit-sheet';
import { dmax } from '@rakuen/core/measurement/measures/dmax';
import type { Measure } from '@rakuen/core/measurement/measures/measure';
import { MEASURE_GROUPS, MEASURES } from '@rakuen/core/measurement/measures/registry';
import { describeBeside, describePair } from '@rakuen/core/measurement/sentences';
import { isEstimated } from '@rakuen/core/measurement/figure';
import { formatBetween, formatFigure } from '@rakuen/core/measurement/show';
import { csvOf } from '@rakuen/core/formats/csv-table';
import {
  alikeMeasures,
  comparable,
  basisOf,
  unlike,
  unlikeByReason,
  unstated,
  type ShownCondition,
} from '@rakuen/core/measurement/basis';
import type { ComparisonQuery } from '@rakuen/contract/comparison';
import type { ConditionView } from '@rakuen/contract/conditions';
import { notFound, RakuenError } from '../app/errors.ts';
import type { OutgoingFile } from '../files/file-store.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import type { ComparisonPage } from '../drawing/comparison-pdf.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { SheetsService } from '../sheets/sheets.service.ts';

const FEWEST = 2;
const MOST = 6;

/** A print condition as the light shows it: which of its figures were recomputed. */
type Lit = ConditionView & Pick<ShownCondition, 'lit'>;

/** The comparison as paper and as a spreadsheet: under the light that lay over the table. */
@Injectable()
export class ComparisonService {
  constructor(
    private readonly conditions: ConditionsService,
    private readonly sheets: SheetsService,
    private readonly settings: SettingsService,
  ) {}

  async file({ as, ids, light: lightKey, glass: glassKey }: ComparisonQuery): Promise<OutgoingFile> {
    const asked = [...new Set(ids.split(','))];
    if (asked.length < FEWEST || asked.length > MOST)
      throw new RakuenError(400, 'A comparison is of two to six print conditions.', {
        field: 'ids',
        remedy: 'Lay two to six on the table.',
      });
    const all = await this.conditions.list();
    const chosen = asked.map((id) => all.find((c) => c.id === id));
    if (chosen.some((c) => c === undefined)) throw notFound('print condition');
    const lights = await this.sheets.allLights();
    const light = lights.find((l) => l.key === (lightKey ?? TABLE_LIGHTS[0].key));
    const glass = GLASSES.find((g) => g.key === (glassKey ?? GLASSES[0].key));
    if (!light || !glass) throw notFound(light ? 'glass' : 'light');
    const under = `${light.name}${glass.key === 'none' ? '' : `, behind ${glass.name}`}`;
    const plain = light.key === TABLE_LIGHTS[0].key && glass.key === GLASSES[0].key;
    const laid: Lit[] = await Promise.all(
      (chosen as ConditionView[]).map((c) => (plain ? c : this.under(c, light, glass, under))),
    );
    const { thresholds } = await this.settings.get();
    const date = today();
    const rows = MEASURES.filter((m) =>
      laid.some((c) => c.facts?.figures[m.key] && c.facts.figures[m.key].shape !== 'missing'),
    );
    const [left, right] = laid.map((c) => c.facts?.figures ?? {});
    const speaking = alikeMeasures(laid[0], laid[1]);
    if (as === 'csv') {
      const records = rows.map((m) => [
        m.name,
        m.unit,
        ...laid.flatMap((c) => {
          const f = c.facts?.figures[m.key];
          return !f || f.shape === 'missing'
            ? ['', '', '']
            : [plainDigits(formatFigure(m, f)), spreadOf(f.sd), kindOf(m, c)];
        }),
        left[m.key] && right[m.key] && speaking.includes(m)
          ? (differenceOf(m, left[m.key], right[m.key], thresholds)?.verdict ?? '')
          : (unlike(m, laid[0], laid[1]) ?? ''),
        m.source,
        light.name,
        glass.name,
        date,
      ]);
      const head = [
        'measure',
        'unit',
        ...laid.flatMap((c) => [`${c.paper.name}, ${c.printer}, ${c.mediaSetting}`, 'standard deviation', 'kind']),
        'first against second',
        'source',
        'light',
        'glass',
        'date',
      ];
      return {
        name: 'rakuen-comparison.csv',
        mediaType: 'text/csv',
        bytes: Buffer.from(csvOf([head, ...records])),
      };
    }
    const inOrder = new Set(comparable(dmax, laid));
    const page: ComparisonPage = {
      date,
      light: plain ? 'CIELAB, D50, 2°, as measured' : `${sentence(under)}; CIELAB for an eye used to it, 2°`,
      papers: laid.map((c) => ({
        name: c.paper.name,
        line: `${c.printer}, ${c.mediaSetting}${c.printMode === 'colour through a profile' ? '' : `, ${c.printMode}`}`,
        ramp: c.facts?.ramp ?? [],
        outline: c.facts?.outline ?? [],
        white: colour(c, 'white'),
        black: colour(c, 'black'),
        dmax: inOrder.has(c) ? scalar(c, 'dmax') : undefined,
      })),
      sentences: [
        ...describePair(speaking, left, right, thresholds).filter((t) => t.verdict.startsWith('visible')),
        ...describeBeside(speaking, left, right),
      ].map((t) => t.sentence),
      notes: [
        ...unstated(laid.slice(0, 2)).map(
          (i) =>
            `The readings of ${laid[i].paper.name} do not say their measurement condition: they are taken for like, and the whites may not be.`,
        ),
        ...[...unlikeByReason(laid[0], laid[1])].map(
          ([why, measures]) => `Not held against each other, ${why}: ${measures.map((m) => m.name).join('; ')}.`,
        ),
      ],
      groups: MEASURE_GROUPS.flatMap((group) => {
        const shown = group.measures.filter((m) => rows.includes(m));
        return shown.length === 0 ? [] : [{ name: group.name, rows: shown.map((m) => row(m, laid)) }];
      }),
      signs: [
        ...(laid.some((c) => rows.some((m) => keptD50(c, m)))
          ? ['† As measured under D50: not recomputed for this light.']
          : []),
        ...(laid.some((c) => rows.some((m) => isEstimated(c.facts?.figures[m.key])))
          ? [`≈ ${estimatesInWords(laid, rows)}`]
          : []),
      ],
    };
    // Drawing on paper is dear to load, and seldom asked for.
    const { comparisonPdf } = await import('@rakuen/server/drawing/comparison-pdf');
    return { name: 'rakuen-comparison.pdf', mediaType: 'application/pdf', bytes: await comparisonPdf(page) };
  }

  /** A print as the light shows it; as measured where it holds no spectra. */
  private async under(
    c: ConditionView,
    light: ViewingLight,
    glass: Parameters<typeof lighting>[1],
    under: string,
  ): Promise<Lit> {
    if (!c.facts?.readingId) return c;
    const { spectra: s, mesh } = await this.sheets.sheet(c.id);
    if (!s) return { ...c, lit: { under, keys: new Set() }, facts: { ...c.facts, ramp: undefined, outline: [] } };
    const ready: PrintSpectra = {
      ...s,
      reflected: floats(s.reflected),
      luminous: s.luminous ? floats(s.luminous) : undefined,
      estimated: s.estimated,
      triangles: mesh?.triangles ?? [],
    };
    const lit = litPrint(
      ready,
      c.facts.figures,
      lighting(light.power, glass, ready),
      c.facts.toldFrom,
      light.uvEnds?.map((power) => lighting(power, glass, ready)),
    );
    return {
      ...c,
      lit: { under, keys: new Set(Object.keys(lit.figures)), brightenerUnknown: !ready.luminous },
      facts: {
        ...c.facts,
        figures: { ...c.facts.figures, ...lit.figures },
        ramp: [...lit.ramp],
        outline: lit.mesh.triangles.length > 0 ? abOutline(lit.mesh) : [],
      },
    };
  }
}

/** What the estimated figures of a table rest on. */
function estimatesInWords(laid: readonly Lit[], rows: readonly Measure[]): string {
  const from = new Set(
    laid.flatMap((c) =>
      rows.flatMap((m) => {
        const f = c.facts?.figures[m.key];
        return f && f.shape !== 'missing' && f.between ? [f.estimatedFrom ?? 'brightener'] : [];
      }),
    ),
  );
  return [
    (from.has('brightener') || from.has('both')) &&
      'Rests on a brightener estimated from one spectrum: the paper was not read both with and without UV.',
    (from.has('lamp') || from.has('both')) &&
      'Rests on the UV of a lamp that was not measured: between none and what daylight would have.',
  ]
    .filter(Boolean)
    .join(' ');
}

/** A number as a spreadsheet reads it. */
function plainDigits(text: string): string | number {
  const plain = text.replaceAll(/[\u2009\u202f\u00a0]/g, '').replaceAll('−', '-');
  // As a number: a text that begins with a minus would be kept from running as a formula.
  return /^-\d+(\.\d+)?$/.test(plain) ? Number(plain) : plain;
}

/** A spread below this says no more than that the readings agree to the last digit they were given in. */
const LEAST_SPREAD = 0.0005;
const spreadOf = (sd: number) => (sd < LEAST_SPREAD ? `<${LEAST_SPREAD}` : String(Number(sd.toPrecision(2))));

function kindOf(measure: Measure, c: Lit): string {
  if (measure.judged) return 'judged';
  const figure = c.facts?.figures[measure.key];
  if (figure && figure.shape !== 'missing' && figure.between)
    return `estimated, ${formatBetween(measure, figure.between)}`;
  if ('observe' in measure) return 'measured';
  const { told, recomputed } = basisOf(c, measure);
  const kind = told ? 'told by a profile' : 'measured';
  return recomputed === undefined
    ? kind
    : recomputed
      ? 'recomputed for the light'
      : `${kind} under D50, not recomputed`;
}

/** A figure that stays as it was measured while its neighbours are recomputed. */
const keptD50 = (c: Lit, m: Measure) => basisOf(c, m).recomputed === false && !('observe' in m);

function row(m: Measure, laid: readonly Lit[]): ComparisonPage['groups'][number]['rows'][number] {
  const cell = (c: Lit) => {
    const f = c.facts?.figures[m.key];
    if (!f || f.shape === 'missing') return '—';
    return `${f.between ? '≈ ' : ''}${formatFigure(m, f)}${keptD50(c, m) ? '†' : ''}`;
  };
  return { name: m.name, unit: m.unit, judged: m.judged === true, cells: laid.map(cell) };
}

const sentence = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

function floats(base64: string): Float32Array {
  const bytes = Buffer.from(base64, 'base64');
  return new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
}

const colour = (c: ConditionView, key: string) => {
  const f = c.facts?.figures[key];
  return f?.shape === 'colour' ? f.lab : undefined;
};
const scalar = (c: ConditionView, key: string) => {
  const f = c.facts?.figures[key];
  return f?.shape === 'scalar' ? f.value : undefined;
};
