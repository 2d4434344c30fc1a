import { writeFile } from 'node:fs/promises';
import { Injectable } from '@nestjs/common';
import { printObservations, sheetObservations, type DemoObservation } from '@rakuen/demo/bench';
import { COMMISSIONS, HINTS_SAID, ON_THE_TABLE as PICTURES_ON_THE_TABLE } from '@rakuen/demo/commissions';
import { CONDITIONS, demoReadings, FIRST_BOXES, LATER_BOX, PAPERS } from '@rakuen/demo/studio';
import { SCENES, type SceneName } from '@rakuen/demo/pictures/draw';
import type { ConditionView } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import { INSTRUMENTS } from '@rakuen/contract/vocabulary';
import { BenchService, SIMULATED_SCANNER } from '../bench/bench.service.ts';
import { ChartsService } from '../charts/charts.service.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { ObservationsService } from '../conditions/observations.service.ts';
import { FileStore } from '../files/file-store.ts';
import { PapersService } from '../papers/papers.service.ts';
import { PicturesService } from '../pictures/pictures.service.ts';
import { ReadingsService } from '../readings/readings.service.ts';
import { SheetsService } from '../sheets/sheets.service.ts';
import { SessionsService } from '../sessions/sessions.service.ts';
import { ProfilesService } from '../profiles/profiles.service.ts';
import { TableService } from '../table/table.service.ts';
import { Workshop } from '../work/workshop.ts';
import { DemoSeason } from './demo-season.ts';

/** Which conditions lie on the table when the studio is first opened, by number. */
const ON_THE_TABLE = [0, 2, 4, 5];

/** As a profile is written where nothing else is chosen. */
const PROFILE_SETTINGS = { version: 4, grid: 33, greys: 'paper', light: 'D50' } as const;
const JOB_LOOK_MS = 20;

const PRINTMAKER = 'printmaker';
/** The condition whose chart is being read, by number. */
const CHARTED = 5;

/** Fills a new database with the invented studio, through the same services, files and checks as anyone's own work. */
@Injectable()
export class DemoStudio {
  constructor(
    private readonly papers: PapersService,
    private readonly conditions: ConditionsService,
    private readonly readings: ReadingsService,
    private readonly observations: ObservationsService,
    private readonly bench: BenchService,
    private readonly charts: ChartsService,
    private readonly sessions: SessionsService,
    private readonly pictures: PicturesService,
    private readonly season: DemoSeason,
    private readonly table: TableService,
    private readonly files: FileStore,
    private readonly workshop: Workshop,
    private readonly sheets: SheetsService,
    private readonly profiles: ProfilesService,
  ) {}

  async fill(): Promise<void> {
    // The pictures are drawn and read on one thread while the papers are read on the other.
    const hung = this.hangPictures();
    const scans = CONDITIONS.map((c, i) =>
      CONDITIONS.findIndex((d) => d.paper === c.paper) === i
        ? this.workshop.run('simulateScan', { sheet: c.press.sheet, seed: i + 1 })
        : undefined,
    );

    const paperIds = new Map<string, string>();
    for (const { key, ...paper } of PAPERS) {
      const { id } = await this.papers.create({ ...paper, sizes: paper.sizes.map((s) => ({ ...s })), currency: 'EUR' });
      paperIds.set(key, id);
    }
    const conditions: ConditionView[] = [];
    const found = new Set<string>();
    for (const [i, demo] of CONDITIONS.entries()) {
      const { paper, press, blackOvercoat = false, ...rest } = demo;
      const how = { ...rest, profile: '', paperId: paperIds.get(paper)!, blackOvercoat };
      const { id } = await this.conditions.create(how);
      await this.keep(id, demoReadings(demo, press, FIRST_BOXES.createdAt, i + 1), {
        printedAt: FIRST_BOXES.printedAt,
      });
      // The bare sheet is weighed and scanned once a paper.
      const bare = found.has(paper) ? [] : sheetObservations(press, i * 10);
      await this.observe(id, [
        ...bare,
        ...printObservations(press, PAPERS.find((p) => p.key === paper)!.coating, i * 10 + 5),
      ]);
      const scan = await scans[i];
      if (scan) {
        const { texture, png, ppi } = scan;
        await this.bench.keepScan(id, { ...texture, ppi }, png, PRINTMAKER, SIMULATED_SCANNER);
      }
      found.add(paper);
      conditions.push(await this.conditions.view(id));
    }
    await this.profiled(conditions);
    await this.laterBox(conditions[LATER_BOX.condition]);
    await this.charted(conditions[CHARTED]);
    const pictures = await hung;

    const onTable = ON_THE_TABLE.map((i) => conditions[i].id);
    await this.table.set({
      conditionIds: onTable,
      pictureIds: PICTURES_ON_THE_TABLE.map((name) => pictures.get(name)!.id),
      leftHand: onTable[0],
      rightHand: onTable[2],
      pictureInHand: pictures.get('nightDish')!.id,
    });

    await this.season.lay({ paperIds, conditions, pictures });
    // What the comparison draws is there when it is first opened.
    await Promise.all(onTable.map((id) => this.sheets.sheet(id)));
  }

  /** Writes the profile of each print condition from its readings, so that print files and strips can be written at once. */
  private async profiled(conditions: ConditionView[]): Promise<void> {
    const made = new Map<string, string>();
    for (const [i, { profile: name }] of CONDITIONS.entries()) {
      if (name === '') continue;
      const { id } = conditions[i];
      const known = made.get(name);
      if (known) await this.profiles.choose(id, known);
      else made.set(name, await this.written(id, name));
      conditions[i] = await this.conditions.view(id);
    }
  }

  private async written(conditionId: string, name: string): Promise<string> {
    const begun = await this.profiles.make(conditionId, { name, ...PROFILE_SETTINGS });
    for (;;) {
      const { state, profileId, error } = this.profiles.job(begun.id);
      if (profileId) return profileId;
      if (state === 'failed') throw new Error(`The profile ${name} could not be written: ${error?.message}`);
      await new Promise((go) => setTimeout(go, JOB_LOOK_MS));
    }
  }

  private async hangPictures(): Promise<Map<SceneName, PictureView>> {
    const pictures = new Map<SceneName, PictureView>();
    for (const name of Object.keys(SCENES) as SceneName[]) {
      const { path, fileName, title } = await this.workshop.run('drawDemoPicture', {
        name,
        folder: this.files.incomingFolder,
      });
      const { id, commission } = await this.pictures.add({ path, originalname: fileName }, { title });
      pictures.set(
        name,
        await this.pictures.change(id, {
          commission: { ...commission, ...COMMISSIONS[name] },
          hints: HINTS_SAID[name],
        }),
      );
    }
    return pictures;
  }

  private async keep(
    conditionId: string,
    { fileName, text }: { fileName: string; text: string },
    fields: { batch?: string; printedAt: string },
  ): Promise<ConditionView> {
    const path = this.files.incomingPath();
    await writeFile(path, text);
    return this.readings.keep(conditionId, { path, originalname: fileName }, fields);
  }

  private async observe(conditionId: string, found: readonly DemoObservation[]): Promise<void> {
    await this.observations.keep(
      found.map(({ observation: { kind, ...value }, instrument, light }) => ({
        conditionId,
        kind,
        value,
        takenAt: FIRST_BOXES.createdAt,
        by: PRINTMAKER,
        instrument,
        light,
        note: '',
        scanHash: null,
      })),
    );
  }

  /** The reformulated box beside the first; the first goes on giving the figures until the printmaker says otherwise. */
  private async laterBox({ id, facts }: ConditionView): Promise<void> {
    await this.keep(
      id,
      demoReadings(CONDITIONS[LATER_BOX.condition], LATER_BOX.press, LATER_BOX.createdAt, 77),
      LATER_BOX,
    );
    await this.readings.takeFiguresFrom(id, facts!.readingId);
  }

  /** A chart laid out, and a session that waits at its fourth strip. */
  private async charted({ id }: ConditionView): Promise<void> {
    const chart = await this.charts.create({
      name: 'Everything, A4',
      spec: { purpose: 'combined', patches: 600, sheet: 'A4', patchMm: 7, dpi: 360, seed: 41_207 },
    });
    await this.charts.create({
      name: 'Greys, A4',
      spec: { purpose: 'neutral', patches: 220, sheet: 'A4', patchMm: 8, dpi: 360, seed: 8_016 },
    });
    const session = await this.sessions.begin({
      conditionId: id,
      chartId: chart.id,
      instrument: INSTRUMENTS[0],
      passes: 2,
      printedAt: new Date(Date.now() - 26 * 3_600_000).toISOString(),
      batch: 'second box',
      rehearsal: 'none',
    });
    if (session.lay) await this.sessions.lay(session.id, session.lay);
    for (let strip = 0; strip < 3; strip++) await this.sessions.read(session.id);
  }
}
