import { dayOf } from '@rakuen/core/day';
import { randomInt, randomUUID } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { DataSource, Not, Repository } from 'typeorm';
import { chartPatches } from '@rakuen/core/chart/chart-reference';
import type { ChartDesign } from '@rakuen/core/chart/chart-design';
import { fromRgb16 } from '@rakuen/core/chart/device16';
import { labToXyz } from '@rakuen/core/colour/lab';
import type { Lab } from '@rakuen/core/colour/types';
import { bendExpectation, type Expected } from '@rakuen/core/session/expectation';
import { outliers } from '@rakuen/core/session/outliers';
import { nextPass } from '@rakuen/core/session/reading-run';
import { checkStrip } from '@rakuen/core/session/strip-check';
import { driftFinding, type DriftWhite } from '@rakuen/core/session/white-drift';
import { FAULTS, faultOf, type Fault } from '@rakuen/core/simulation/instrument';
import type {
  FinishInput,
  MendInput,
  PatchPlace,
  SessionHead,
  SessionInput,
  SessionStrip,
  SessionView,
  SheetPlace,
  SheetToLay,
  StripPlace,
} from '@rakuen/contract/sessions';
import { notFound, RakuenError } from '../app/errors.ts';
import { BenchService } from '../bench/bench.service.ts';
import { ChartsService } from '../charts/charts.service.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { FileStore } from '../files/file-store.ts';
import { ReadingsService } from '../readings/readings.service.ts';
import { type ChartRow } from '../charts/charts.entity.ts';
import { SessionRow, SessionStripRow } from './sessions.entity.ts';
import { Workshop } from '../work/workshop.ts';
import { columns, whole } from '../store/rows.ts';

const MS_PER_HOUR = 3_600_000;
/** A rehearsed fault strikes here, so that there is a strip before it to be doubled. */
const REHEARSED_STRIP = 1;
const DIGITS_OF_SEED = 1_000_000;

/**
 * Reading a chart strip by strip. Whatever was acknowledged is in the database: a session goes on where it stopped,
 * whatever stopped it.
 */
@Injectable()
export class SessionsService {
  constructor(
    @InjectRepository(SessionRow) private readonly sessions: Repository<SessionRow>,
    @InjectRepository(SessionStripRow) private readonly strips: Repository<SessionStripRow>,
    private readonly conditions: ConditionsService,
    private readonly charts: ChartsService,
    private readonly bench: BenchService,
    private readonly readings: ReadingsService,
    private readonly files: FileStore,
    private readonly workshop: Workshop,
    private readonly database: DataSource,
  ) {}

  /** Open sessions first, then the newest. */
  async list(conditionId?: string): Promise<SessionHead[]> {
    const rows = await this.sessions.find({
      where: conditionId ? { conditionId } : {},
      order: { state: 'DESC', createdAt: 'DESC' },
    });
    return Promise.all(rows.map(async (row) => this.head(row, await this.charts.get(row.chartId))));
  }

  async begin(input: SessionInput): Promise<SessionView> {
    await this.conditions.get(input.conditionId);
    await this.charts.get(input.chartId);
    const createdAt = new Date().toISOString();
    if (Date.parse(input.printedAt) > Date.parse(createdAt) + MS_PER_HOUR)
      throw new RakuenError(400, 'The chart can’t have been printed later than now.', {
        field: 'printedAt',
        remedy: 'Give the day and hour at which it left the printer.',
      });
    const row = this.sessions.create({
      ...input,
      printedAt: new Date(input.printedAt).toISOString(),
      batch: input.batch?.trim() ?? '',
      id: randomUUID(),
      createdAt,
      seed: randomInt(DIGITS_OF_SEED),
      state: 'open',
      sinceCalibration: 0,
      sheetLaid: null,
      excluded: [],
    });
    await this.sessions.insert(whole(row));
    return this.view(row.id);
  }

  async view(id: string): Promise<SessionView> {
    const session = await this.get(id);
    const chart = await this.charts.get(session.chartId);
    const rows = await this.standing(id);
    const expected = labsOf(await this.expected(session, chart, rows));
    const { design } = chart;
    const questioned = rows.find((r) => r.state === 'questioned');
    const kept = rows.filter((r) => r.state === 'kept');
    const strips = design.strips.map((s, strip): SessionStrip => ({
      label: s.label,
      patchIds: s.patches.map((p) => p.id),
      device: s.patches.map((p) => fromRgb16(p.rgb16)),
      expected: expected[strip],
      passes: rows
        .filter((r) => r.strip === strip)
        .map((r) => ({
          strip,
          pass: r.pass,
          state: r.state as 'kept' | 'questioned',
          takenAt: r.takenAt,
          findings: r.findings,
          labs: r.labs,
        })),
    }));
    const last = rows.reduce((latest, r) => (r.takenAt > latest ? r.takenAt : latest), session.createdAt);
    const next = session.state === 'open' && !questioned ? nextPass(sheetsOf(design), session.passes, kept) : undefined;
    return {
      ...(await this.head(session, chart, kept.length)),
      strips,
      next,
      lay: next && sheetToLay(session, design, next.strip),
      questioned: questioned && { strip: questioned.strip, pass: questioned.pass },
      drift: driftFinding(this.whites(design, kept, session.excluded)),
      sinceCalibration: session.sinceCalibration,
      outliers: outliers(byPatch(design, kept, session.passes)),
      excluded: session.excluded,
      driedHours: (Date.parse(last) - Date.parse(session.printedAt)) / MS_PER_HOUR,
    };
  }

  /** Reads the next strip; what was read is on the disk before the answer goes out. */
  async read(id: string): Promise<SessionView> {
    const session = await this.open(id);
    const chart = await this.charts.get(session.chartId);
    const rows = await this.standing(id);
    if (rows.some((r) => r.state === 'questioned'))
      throw new RakuenError(409, 'A strip is in question.', {
        remedy: 'Read it again, or say what is to be done with it, before the next.',
      });
    const place = nextPass(sheetsOf(chart.design), session.passes, rows);
    if (!place)
      throw new RakuenError(409, 'Every strip is read.', { remedy: 'Finish the session, or read one strip again.' });
    const { strip, pass } = place;
    const lay = sheetToLay(session, chart.design, strip);
    if (lay)
      throw new RakuenError(409, `Strip ${chart.design.strips[strip].label} is on sheet ${lay.sheet} of ${lay.of}.`, {
        remedy: `Lay sheet ${lay.sheet} under the instrument, and say so.`,
      });
    const attempt = await this.strips.countBy({ sessionId: id, strip, pass });
    const turn = await this.strips.countBy({ sessionId: id });
    const read = await this.workshop.run('readStrip', {
      model: await this.bench.press(session.conditionId, session.batch),
      strips: chart.design.strips.map((s) => s.patches.map((p) => p.rgb16)),
      strip,
      seed: session.seed + turn * 7_919,
      sinceCalibration: session.sinceCalibration,
      fault: faultFor(session, strip, pass, attempt),
    });
    const { strips } = chart.design;
    const onSheet = strips.flatMap((s, i) => (s.page === strips[strip].page ? [i] : []));
    const earlier = await this.strips.findBy({ sessionId: id, strip });
    const expected = await this.expected(session, chart, rows);
    const findings = checkStrip(read.labs, labsOf(expected), strip, {
      labels: strips.map((s) => s.label),
      range: [onSheet[0], onSheet[onSheet.length - 1]],
      doubt: expected[strip].map((e) => e.doubtDeltaE),
      before: strips[strip].patches.map((_, patch) => earlier.map((e) => e.labs[patch])),
    });
    await this.database.transaction(async (manager) => {
      await manager.insert(
        SessionStripRow,
        columns<SessionStripRow>({
          id: randomUUID(),
          sessionId: id,
          strip,
          pass,
          attempt,
          turn,
          takenAt: new Date().toISOString(),
          sinceCalibration: session.sinceCalibration,
          state: findings.length > 0 ? 'questioned' : 'kept',
          findings,
          labs: read.labs,
          spectra: Buffer.from(read.spectra.buffer, read.spectra.byteOffset, read.spectra.byteLength),
        }),
      );
      await manager.update(SessionRow, id, { sinceCalibration: session.sinceCalibration + 1 });
    });
    return this.view(id);
  }

  /** Withdraws the strip read last. */
  async undo(id: string): Promise<SessionView> {
    await this.open(id);
    const last = (await this.standing(id)).reduce<SessionStripRow | undefined>(
      (latest, r) => (!latest || r.turn > latest.turn ? r : latest),
      undefined,
    );
    if (!last) throw new RakuenError(409, 'No strip was read yet.', { remedy: 'Read the first one.' });
    return this.withdraw(id, last);
  }

  /** Withdraws a strip, so that it is read again next. */
  async again(id: string, place: StripPlace): Promise<SessionView> {
    await this.open(id);
    return this.withdraw(id, await this.standingStrip(id, place));
  }

  /** Says what is done with a strip in question. */
  async mend(id: string, { mend, ...place }: MendInput): Promise<SessionView> {
    const session = await this.open(id);
    const row = await this.standingStrip(id, place);
    if (row.state !== 'questioned')
      throw new RakuenError(409, 'This strip is not in question.', { remedy: 'Read it again if you doubt it.' });
    const bad = row.findings.flatMap((f) => f.patches ?? []);
    if (mend === 'leave out' && bad.length === 0)
      throw new RakuenError(409, 'The whole strip is in question, not a patch of it.', {
        remedy: 'Read the strip again, or keep it as it is.',
      });
    const { design } = await this.charts.get(session.chartId);
    const first = design.strips.slice(0, row.strip).reduce((n, s) => n + s.patches.length, 0);
    const out = mend === 'leave out' ? bad.map((b) => ({ patch: first + b, pass: row.pass })) : [];
    await this.database.transaction(async (manager) => {
      await manager.update(SessionStripRow, row.id, { state: 'kept' });
      await manager.update(SessionRow, id, columns<SessionRow>({ excluded: [...session.excluded, ...out] }));
    });
    return this.view(id);
  }

  /** Leaves a patch of one pass out, or takes it back in. */
  async leaveOut(id: string, { patch, pass, out }: PatchPlace): Promise<SessionView> {
    const session = await this.open(id);
    const { design } = await this.charts.get(session.chartId);
    if (patch >= design.patchCount || pass >= session.passes) throw notFound('patch of this session');
    const others = session.excluded.filter((e) => e.patch !== patch || e.pass !== pass);
    await this.sessions.update(id, columns<SessionRow>({ excluded: out ? [...others, { patch, pass }] : others }));
    return this.view(id);
  }

  /** Says which sheet of the chart lies under the instrument. */
  async lay(id: string, { sheet }: SheetPlace): Promise<SessionView> {
    const { chartId } = await this.open(id);
    if (sheet > (await this.charts.get(chartId)).design.pages.length) throw notFound('sheet of this chart');
    await this.sessions.update(id, { sheetLaid: sheet - 1 });
    return this.view(id);
  }

  async calibrate(id: string): Promise<SessionView> {
    await this.open(id);
    await this.sessions.update(id, { sinceCalibration: 0 });
    return this.view(id);
  }

  /** Makes the readings of a fully read chart and keeps them for the print condition. */
  async finish(id: string, { takeDriftOut }: FinishInput): Promise<SessionView> {
    const session = await this.open(id);
    const chart = await this.charts.get(session.chartId);
    const rows = await this.standing(id);
    if (rows.some((r) => r.state === 'questioned'))
      throw new RakuenError(409, 'A strip is in question.', { remedy: 'Say first what is to be done with it.' });
    const left = chart.design.strips.length * session.passes - rows.length;
    if (left > 0)
      throw new RakuenError(409, `${left} ${left === 1 ? 'strip is' : 'strips are'} not read yet.`, {
        remedy: 'Read on; the session waits.',
      });
    const spectra = await this.strips.find({
      select: { strip: true, pass: true, sinceCalibration: true, takenAt: true, spectra: true },
      where: { sessionId: id, state: 'kept' },
      order: { pass: 'ASC', strip: 'ASC' },
    });
    // Dated by its last strip: finishing again after a power cut makes the same file to the byte.
    const createdAt = spectra.reduce((latest, r) => (r.takenAt > latest ? r.takenAt : latest), '');
    const file = await this.workshop.run('writeSession', {
      strips: chart.design.strips.map((s) => s.patches.map(({ id: name, rgb16 }) => ({ id: name, rgb16 }))),
      passes: spectra.map((r) => ({
        strip: r.strip,
        pass: r.pass,
        sinceCalibration: r.sinceCalibration,
        spectra: new Uint8Array(r.spectra),
      })),
      excluded: session.excluded,
      whites: takeDriftOut ? this.whites(chart.design, rows, session.excluded) : [],
      head: {
        instrument: session.instrument,
        createdAt,
        description: `${chart.name}, ${session.passes === 1 ? 'one pass' : `${session.passes} passes`}${takeDriftOut ? ', drift taken out by its whites' : ''}`,
        backing: 'white',
      },
    });
    const path = this.files.incomingPath();
    await writeFile(path, file);
    const originalname = `${chart.name.replace(/[^\p{L}\p{N}.-]+/gu, '-')}-${dayOf(createdAt)}.cxf`;
    try {
      await this.readings.keep(
        session.conditionId,
        { path, originalname },
        { batch: session.batch, printedAt: session.printedAt },
      );
    } catch (error) {
      await this.files.discard(path);
      if (!(error instanceof RakuenError) || error.getStatus() !== 409) throw error;
    }
    await this.sessions.update(id, { state: 'finished' });
    return this.view(id);
  }

  async remove(id: string): Promise<void> {
    await this.get(id);
    await this.sessions.delete(id);
  }

  private async get(id: string): Promise<SessionRow> {
    const row = await this.sessions.findOneBy({ id });
    if (!row) throw notFound('session');
    return row;
  }

  private async open(id: string): Promise<SessionRow> {
    const row = await this.get(id);
    if (row.state !== 'open')
      throw new RakuenError(409, 'This session is finished.', { remedy: 'Begin another to read the chart again.' });
    return row;
  }

  /** What was read and not withdrawn. */
  private standing(id: string): Promise<SessionStripRow[]> {
    return this.strips.find({ where: { sessionId: id, state: Not('withdrawn') }, order: { turn: 'ASC' } });
  }

  private async standingStrip(id: string, { strip, pass }: StripPlace): Promise<SessionStripRow> {
    const row = await this.strips.findOneBy({ sessionId: id, strip, pass, state: Not('withdrawn') });
    if (!row) throw notFound('strip, read');
    return row;
  }

  private async withdraw(id: string, row: SessionStripRow): Promise<SessionView> {
    const session = await this.get(id);
    const { design } = await this.charts.get(session.chartId);
    const first = design.strips.slice(0, row.strip).reduce((n, s) => n + s.patches.length, 0);
    const last = first + design.strips[row.strip].patches.length;
    await this.database.transaction(async (manager) => {
      await manager.update(SessionStripRow, row.id, { state: 'withdrawn' });
      // What was left out of it goes with it: the new reading starts whole.
      const excluded = session.excluded.filter((e) => e.pass !== row.pass || e.patch < first || e.patch >= last);
      await manager.update(SessionRow, id, columns<SessionRow>({ excluded }));
    });
    return this.view(id);
  }

  /** What every patch should read, strip by strip: a printer of that kind, bent towards what was read so far. */
  private async expected(
    session: SessionRow,
    chart: ChartRow,
    rows: readonly SessionStripRow[],
  ): Promise<Expected[][]> {
    const patches = chartPatches(chart.design);
    const labs = await this.workshop.run('expectedLabs', {
      model: await this.bench.rightPress(session.conditionId),
      patches: patches.map((p) => p.rgb16),
    });
    let from = 0;
    const plain = chart.design.strips.map((s) => labs.slice(from, (from += s.patches.length)));
    const bend = bendExpectation(
      rows.filter((r) => r.state === 'kept').flatMap((r) => r.labs.map((lab, i) => [plain[r.strip][i], lab] as const)),
    );
    return plain.map((strip) => strip.map(bend));
  }

  private whites(
    design: ChartDesign,
    rows: readonly SessionStripRow[],
    excluded: SessionRow['excluded'],
  ): DriftWhite[] {
    const out = new Set(excluded.map((e) => `${e.pass}/${e.patch}`));
    let from = 0;
    const first = design.strips.map((s) => (from += s.patches.length) - s.patches.length);
    return rows.flatMap((r) =>
      design.strips[r.strip].patches.flatMap((p, i) =>
        p.role === 'white' && !out.has(`${r.pass}/${first[r.strip] + i}`)
          ? [{ sinceCalibration: r.sinceCalibration, Y: labToXyz(r.labs[i])[1] }]
          : [],
      ),
    );
  }

  private async head(row: SessionRow, { name, design }: ChartRow, kept?: number): Promise<SessionHead> {
    const { id, conditionId, chartId, instrument, passes, createdAt, printedAt, batch, rehearsal, state } = row;
    return {
      id,
      conditionId,
      chartId,
      chartName: name,
      instrument,
      passes,
      createdAt,
      printedAt,
      batch,
      rehearsal,
      state,
      stripCount: design.strips.length,
      kept: kept ?? (await this.strips.countBy({ sessionId: id, state: 'kept' })),
    };
  }
}

const labsOf = (strips: readonly (readonly Expected[])[]): Lab[][] => strips.map((s) => s.map((e) => e.lab));

const sheetsOf = (design: ChartDesign) => design.strips.map((s) => s.page);

/** The sheet a strip is on, where another lies under the instrument, or none yet. */
function sheetToLay({ sheetLaid }: SessionRow, { strips, pages }: ChartDesign, strip: number): SheetToLay | undefined {
  const { page } = strips[strip];
  return pages.length > 1 && sheetLaid !== page ? { sheet: page + 1, of: pages.length } : undefined;
}

/** Lab by patch through the chart, then by pass. */
function byPatch(design: ChartDesign, rows: readonly SessionStripRow[], passes: number): (Lab | undefined)[][] {
  return design.strips.flatMap((s, strip) => {
    const own = Array.from({ length: passes }, (_, pass) => rows.find((r) => r.strip === strip && r.pass === pass));
    return s.patches.map((_, i) => own.map((r) => r?.labs[i]));
  });
}

function faultFor({ rehearsal, seed }: SessionRow, strip: number, pass: number, attempt: number): Fault | undefined {
  if (rehearsal === 'now and then') return faultOf(seed + pass, strip, attempt);
  const rehearsed = FAULTS.find((f) => f === rehearsal);
  return rehearsed && strip === REHEARSED_STRIP && pass === 0 && attempt === 0 ? rehearsed : undefined;
}
