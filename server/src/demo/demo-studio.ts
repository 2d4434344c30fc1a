import { writeFile } from 'node:fs/promises';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { CONDITIONS, demoReadings, PAPERS } from '@rakuen/demo/studio';
import type { ConditionView } from '@rakuen/contract/conditions';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { FileStore } from '../files/file-store.ts';
import { MatchesService } from '../matches/matches.service.ts';
import { PapersService } from '../papers/papers.service.ts';
import { PicturesService } from '../pictures/pictures.service.ts';
import { PrintsService } from '../prints/prints.service.ts';
import { ReadingsService } from '../readings/readings.service.ts';
import { DocumentRow, ENTITIES } from '../store/entities.ts';
import { TableService } from '../table/table.service.ts';
import { Workshop } from '../work/workshop.ts';

/** Which conditions lie on the table when the studio is first opened, by number. */
const ON_THE_TABLE = [0, 2, 4, 5];

/** Stands in the database while the studio is being filled. */
const FILLING = 'demo-filling';

/** Fills an empty database with the invented studio, through the same services, files and checks as anyone's own work. */
@Injectable()
export class DemoStudio {
  constructor(
    private readonly papers: PapersService,
    private readonly conditions: ConditionsService,
    private readonly readings: ReadingsService,
    private readonly pictures: PicturesService,
    private readonly matches: MatchesService,
    private readonly prints: PrintsService,
    private readonly table: TableService,
    private readonly files: FileStore,
    private readonly workshop: Workshop,
    private readonly database: DataSource,
  ) {}

  async fillIfEmpty(): Promise<void> {
    const documents = this.database.getRepository(DocumentRow);
    // A fill that was cut short is begun again; nobody was let in before it ended.
    if (await documents.existsBy({ key: FILLING })) await this.clear();
    if ((await this.papers.list()).length > 0 || (await this.pictures.list()).length > 0) return;
    await documents.insert({ key: FILLING, value: {} });
    await this.fill();
    await documents.delete({ key: FILLING });
  }

  private async clear(): Promise<void> {
    await this.database.transaction(async (manager) => {
      for (const entity of [...ENTITIES].reverse()) await manager.createQueryBuilder().delete().from(entity).execute();
    });
  }

  private async fill(): Promise<void> {
    const drawn = Promise.all((['nightDish', 'saltCrust', 'controlRoom'] as const).map((name) => this.workshop.run('drawDemoPicture', { name, folder: this.files.incomingFolder })));

    const paperIds = new Map<string, string>();
    for (const { key, ...paper } of PAPERS) {
      const { id } = await this.papers.create({ ...paper, sizes: paper.sizes.map((s) => ({ ...s })), currency: 'EUR' });
      paperIds.set(key, id);
    }
    const conditions: ConditionView[] = [];
    for (const [seed, demo] of CONDITIONS.entries()) {
      const { paper, press: _press, ...rest } = demo;
      let condition = await this.conditions.create({ ...rest, paperId: paperIds.get(paper)!, blackOvercoat: false });
      for (const { fileName, text } of demoReadings(demo, seed + 1)) {
        const path = this.files.incomingPath();
        await writeFile(path, text);
        condition = await this.readings.keep(condition.id, { path, originalname: fileName }, {});
      }
      conditions.push(condition);
    }
    const pictures = [];
    for (const { path, fileName, title } of await drawn) pictures.push(await this.pictures.add({ path, originalname: fileName }, { title }));

    const onTable = ON_THE_TABLE.map((i) => conditions[i].id);
    await this.table.set({ conditionIds: onTable, pictureIds: pictures.map((p) => p.id), leftHand: onTable[0], rightHand: onTable[2], pictureInHand: pictures[0].id });

    const [night, salt] = pictures;
    await this.matches.decide({ pictureId: night.id, conditionId: conditions[0].id, stamp: 'chosen', reason: 'The sky stays open down to the horizon; on the rag it closes.', decidedBy: 'printmaker' });
    await this.matches.decide({ pictureId: night.id, conditionId: conditions[4].id, stamp: 'refused', reason: 'The dish sinks into the plain.', decidedBy: 'printmaker' });
    await this.matches.decide({ pictureId: salt.id, conditionId: conditions[4].id, stamp: 'held', reason: 'Quiet and right; the client wants to see the lustre beside it.', decidedBy: 'client' });
    const proposal = await this.prints.propose(night.id, conditions[0].id);
    await this.prints.record({
      pictureId: night.id,
      conditionId: conditions[0].id,
      printedOn: '2026-10-02',
      widthMm: 420,
      heightMm: 280,
      copies: 1,
      settings: { ...proposal.settings, sharpening: 'light, for baryta', feed: 'front straight path' },
      carriedOver: ['printer', 'inkSet', 'blackInk', 'resolution', 'printMode', 'profile', 'blackOvercoat', 'intent', 'blackPointCompensation'],
      verdict: 'good',
      verdictReason: 'Stars crisp, rim of the dish not burnt.',
      misprints: 1,
      misprintCause: 'Printed on the back: the coated side was down.',
    });
  }
}
