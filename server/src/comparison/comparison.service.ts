import { Injectable } from '@nestjs/common';
import { stringify } from 'csv-stringify/sync';
import { GLASSES } from '@rakuen/core/light/glass';
import { TABLE_LIGHTS } from '@rakuen/core/light/table-lights';
import { abOutline } from '@rakuen/core/gamut/outline';
import { differenceOf } from '@rakuen/core/measurement/difference';
import { litPrint, measuresInLight } from '@rakuen/core/light/lit-print';
import type { PrintSpectra } from '@rakuen/core/light/print-spectra';
import { lighting } from '@rakuen/core/light/lit-sheet';
import { MEASURES } from '@rakuen/core/measurement/measures/registry';
import { describeBeside, describePair } from '@rakuen/core/measurement/sentences';
import { formatFigure } from '@rakuen/core/measurement/show';
import type { ComparisonQuery } from '@rakuen/contract/comparison';
import type { ConditionView } from '@rakuen/contract/conditions';
import { notFound, RakuenError } from '../app/errors.ts';
import type { OutgoingFile } from '../charts/charts.service.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { comparisonPdf, type ComparisonPage } from '../drawing/comparison-pdf.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { SheetsService } from '../sheets/sheets.service.ts';

const FEWEST = 2;
const MOST = 6;

/** A print condition as the light shows it: which of its figures were recomputed. */
type Lit = ConditionView & { readonly recomputed?: ReadonlySet<string> };

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
    const own = (await this.sheets.lights()).map((l) => ({ key: l.id, name: l.name, power: l }));
    const light = [...TABLE_LIGHTS, ...own].find((l) => l.key === (lightKey ?? TABLE_LIGHTS[0].key));
    const glass = GLASSES.find((g) => g.key === (glassKey ?? GLASSES[0].key));
    if (!light || !glass) throw notFound(light ? 'glass' : 'light');
    const laid: Lit[] = await Promise.all(
      (chosen as ConditionView[]).map((c) =>
        light.key === TABLE_LIGHTS[0].key && glass.key === GLASSES[0].key ? c : this.under(c, light.power, glass),
      ),
    );
    const { thresholds } = await this.settings.get();
    const under = `${light.name}${glass.key === 'none' ? '' : `, behind ${glass.name}`}`;
    const rows = MEASURES.filter((m) =>
      laid.some((c) => c.facts?.figures[m.key] && c.facts.figures[m.key].shape !== 'missing'),
    );
    const [left, right] = laid.map((c) => c.facts?.figures ?? {});
    const speaking = measuresInLight(
      MEASURES,
      laid.slice(0, 2).map((c) => c.recomputed),
    );
    if (as === 'csv') {
      const records = rows.map((m) => [
        m.name,
        m.unit,
        m.judged ? 'judged' : 'measured',
        ...laid.flatMap((c) => {
          const f = c.facts?.figures[m.key];
          return !f || f.shape === 'missing'
            ? ['', '']
            : [
                formatFigure(m, f)
                  .replaceAll(/[\u2009\u202f\u00a0]/g, '')
                  .replaceAll('−', '-'),
                String(Number(f.sd.toPrecision(3))),
              ];
        }),
        left[m.key] && right[m.key] && speaking.includes(m)
          ? (differenceOf(m, left[m.key], right[m.key], thresholds)?.verdict ?? '')
          : '',
        m.source,
      ]);
      const head = [
        'measure',
        'unit',
        'kind',
        ...laid.flatMap((c) => [`${c.paper.name}, ${c.printer}, ${c.mediaSetting}`, 'standard deviation']),
        'first against second',
        'source',
      ];
      return {
        name: 'rakuen-comparison.csv',
        mediaType: 'text/csv',
        bytes: Buffer.from(stringify([head, ...records], { record_delimiter: 'windows', escape_formulas: false })),
      };
    }
    const page: ComparisonPage = {
      date: new Date().toISOString().slice(0, 10),
      light: under,
      papers: laid.map((c) => ({
        name: c.paper.name,
        line: `${c.printer}, ${c.mediaSetting}${c.printMode === 'colour through a profile' ? '' : `, ${c.printMode}`}`,
        ramp: (c.facts?.ramp ?? []).map((s) => s.lab),
        outline: c.facts?.outline ?? [],
        white: colour(c, 'white'),
        black: colour(c, 'black'),
        dmax: scalar(c, 'dmax'),
      })),
      sentences: [
        ...describePair(speaking, left, right, thresholds).filter((t) => t.verdict.startsWith('visible')),
        ...describeBeside(MEASURES, left, right),
      ].map((t) => t.sentence),
      rows: rows.map((m) => ({
        name: m.name,
        unit: m.unit,
        judged: m.judged === true,
        cells: laid.map((c) => {
          const f = c.facts?.figures[m.key];
          return f && f.shape !== 'missing' ? formatFigure(m, f) : '—';
        }),
      })),
    };
    return { name: 'rakuen-comparison.pdf', mediaType: 'application/pdf', bytes: await comparisonPdf(page) };
  }

  /** A print as the light shows it; as measured where it holds no spectra. */
  private async under(
    c: ConditionView,
    power: Parameters<typeof lighting>[0],
    glass: Parameters<typeof lighting>[1],
  ): Promise<Lit> {
    if (!c.facts?.readingId) return c;
    const { spectra: s, mesh } = await this.sheets.sheet(c.id);
    if (!s) return c;
    const ready: PrintSpectra = {
      ...s,
      reflected: floats(s.reflected),
      luminous: s.luminous ? floats(s.luminous) : undefined,
      triangles: mesh?.triangles ?? [],
    };
    const lit = litPrint(ready, c.facts.figures, lighting(power, glass, ready));
    return {
      ...c,
      recomputed: new Set(Object.keys(lit.figures)),
      facts: {
        ...c.facts,
        figures: { ...c.facts.figures, ...lit.figures },
        ramp: [...lit.ramp],
        outline: lit.mesh.triangles.length > 0 ? abOutline(lit.mesh) : [],
      },
    };
  }
}

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
