import { Injectable, Logger } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { type EntityManager, Repository } from 'typeorm';
import type { Fingerprint } from '@rakuen/core/measurement/fingerprint';
import type { GamutMesh } from '@rakuen/core/gamut/mesh';
import type { Figure } from '@rakuen/core/measurement/figure';
import { computeFigures, FIGURES_VERSION, MEASURES, observedFigures } from '@rakuen/core/measurement/measures/registry';
import type { Observation } from '@rakuen/core/measurement/observations';
import type { ConditionFacts, FactsHead } from '@rakuen/contract/conditions';
import { RakuenError } from '../app/errors.ts';
import { FileStore } from '../files/file-store.ts';
import { speakingSets } from '@rakuen/core/measurement/speaking';
import { setKey, setSources, type SpeakingRows } from '../readings/reading-source.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { Derived, type Inputs } from '../store/derived.ts';
import { keyFrom } from '../store/keys.ts';
import { ConditionRow } from './conditions.entity.ts';
import { ReadingRow } from '../readings/readings.entity.ts';
import { Writer } from '../store/writer.ts';
import type { SetFigures } from '../work/tasks.ts';
import { eachOf } from '../work/under-way.ts';
import { AT_ONCE, Workshop } from '../work/workshop.ts';
import { factsHead, HEAD_COLUMNS, headOf, type HeadRow } from './condition-heads.ts';

/** What readings tell of a print condition: its facts, without what was found at the bench, and the solid of its colours. */
interface Told {
  readonly facts: ConditionFacts;
  /** Null where the sets that speak enclose none. */
  readonly solid: GamutMesh | null;
  /** What its primary set is recognised by; null where it holds no device values. */
  readonly fingerprint: Fingerprint | null;
}
type Asked = Pick<ConditionRow, 'id' | 'figuresFrom'>;

/** What was read of print conditions and what follows from it: told once from the sets that speak, and kept under them. */
@Injectable()
export class FactsService {
  constructor(
    @InjectRepository(ConditionRow) private readonly conditions: Repository<ConditionRow>,
    @InjectRepository(ReadingRow) private readonly readings: Repository<ReadingRow>,
    private readonly derived: Derived,
    private readonly files: FileStore,
    private readonly settings: SettingsService,
    private readonly workshop: Workshop,
    private readonly writer: Writer,
  ) {
    settings.whenTold(() => this.renew());
  }

  /**
   * Facts of print conditions from what was read; one of which nothing was read is left out.
   * @param readings all of them
   */
  async of(conditions: readonly Asked[], readings: readonly ReadingRow[]): Promise<Map<string, ConditionFacts>> {
    const keys = await this.keysOf(conditions, readings);
    const rows = await this.derived.kept<{ value: string }>('facts', keys);
    const facts = new Map(rows.map((r) => [r.subject, JSON.parse(r.value) as ConditionFacts]));
    for (const [id, told] of await this.lacking(keys, facts)) facts.set(id, told);
    return facts;
  }

  /** What a list shows of every print condition's: taken out by the database, for the whole of them is some forty times as much. */
  async heads(conditions: readonly Asked[]): Promise<Map<string, FactsHead>> {
    const keys = await this.keysOf(conditions, await this.readings.find());
    const rows = await this.derived.kept<HeadRow>('facts', keys, HEAD_COLUMNS);
    const heads = new Map(rows.map((row) => [row.subject, headOf(row)]));
    for (const [id, told] of await this.lacking(keys, heads)) heads.set(id, factsHead(told));
    return heads;
  }

  /** The solid of a print condition's colours; undefined where nothing that was read encloses one. */
  async solid(id: string): Promise<GamutMesh | undefined> {
    // Of one that was only weighed and looked at there is none.
    if ((await this.readings.countBy({ conditionId: id })) === 0) return undefined;
    const solid = await this.derived.get(id, 'solid', () => this.inputs(id, async (told) => (await told).solid));
    return solid ?? undefined;
  }

  /** What print conditions are recognised by, by their ids; those that were not read with device values are left out. */
  async fingerprints(): Promise<Map<string, Fingerprint>> {
    const conditions = await this.conditions.find({ select: { id: true, figuresFrom: true } });
    const keys = await this.keysOf(conditions, await this.readings.find());
    const rows = await this.derived.kept<{ value: string }>('fingerprint', keys);
    const prints = new Map(rows.map((r) => [r.subject, JSON.parse(r.value) as Fingerprint | null]));
    const lacking = [...keys.keys()].filter((id) => !prints.has(id));
    await eachOf(lacking, AT_ONCE, async (id) => {
      const print = await this.derived
        .get(id, 'fingerprint', () => this.inputs(id, async (told) => (await told).fingerprint))
        .catch((error: unknown) => {
          if (!isOfTheFile(error)) throw error;
          return null;
        });
      prints.set(id, print);
    });
    return new Map([...prints].flatMap(([id, print]) => (print ? [[id, print] as const] : [])));
  }

  /** What the figures and the solid of a print condition rest on: a key that changes with any of it. */
  async keyOf(id: string): Promise<string> {
    return (await this.inputs(id, async () => undefined)).key;
  }

  /** Figures of one set alone. */
  async ofSet(set: SpeakingRows): Promise<SetFigures> {
    const toldFrom = await this.toldFrom();
    return this.derived.get(set.primary.id, 'figures of the set', async () => ({
      key: keyFrom('figures of the set', FIGURES_VERSION, toldFrom, setKey(set)),
      compute: async () => this.workshop.run('readingFigures', { ...(await setSources(this.files, set)), toldFrom }),
    }));
  }

  /**
   * Tells what follows from a change of readings before it is made.
   * @param readings of the condition, as they will be
   * @returns keeps it, in the transaction of the change
   */
  async beforehand(
    condition: Asked,
    readings: readonly ReadingRow[],
  ): Promise<(manager: EntityManager) => Promise<void>> {
    const sets = speakingSets(readings, condition.figuresFrom);
    if (sets.length === 0) return async () => undefined;
    const toldFrom = await this.toldFrom();
    const { facts, solid, fingerprint } = await this.tell(sets, toldFrom);
    const key = keyOf(sets, toldFrom);
    return async (manager) => {
      await this.derived.keep(manager, condition.id, 'facts', key, facts);
      await this.derived.keep(manager, condition.id, 'solid', key, solid);
      await this.derived.keep(manager, condition.id, 'fingerprint', key, fingerprint);
    };
  }

  /** Tells anew what was told with other measures than today's, or another threshold. */
  async renew(): Promise<void> {
    const conditions = await this.conditions.find({ select: { id: true, figuresFrom: true } });
    const keys = await this.keysOf(conditions, await this.readings.find());
    const standing = new Set((await this.derived.kept('facts', keys, '1')).map((r) => r.subject));
    await this.lacking(keys, standing);
    // Kept, too, when this returns.
    await this.writer.run('figures computed anew', () => Promise.resolve());
  }

  /** Those of which nothing that stands is known, told one after another on each thread. */
  private async lacking(
    keys: ReadonlyMap<string, string>,
    standing: { has(id: string): boolean },
  ): Promise<[id: string, facts: ConditionFacts][]> {
    const lacking = [...keys.keys()].filter((id) => !standing.has(id));
    return eachOf(lacking, AT_ONCE, async (id) => [id, await this.one(id)]);
  }

  /** Of one print condition that was read. What can't be read any more is told as missing: the others are shown all the same. */
  private async one(id: string): Promise<ConditionFacts> {
    try {
      return await this.derived.get(id, 'facts', () => this.inputs(id, async (told) => (await told).facts));
    } catch (error) {
      if (!isOfTheFile(error)) throw error;
      Logger.error(`Readings of ${id} could not be read: ${String(error)}`, FactsService.name);
      return UNREADABLE;
    }
  }

  private async inputs<T>(id: string, of: (told: Promise<Told>) => Promise<T>): Promise<Inputs<T>> {
    const { figuresFrom } = await this.conditions.findOneByOrFail({ id });
    const sets = speakingSets(await this.readings.findBy({ conditionId: id }), figuresFrom);
    const toldFrom = await this.toldFrom();
    return { key: keyOf(sets, toldFrom), compute: () => of(this.tell(sets, toldFrom)) };
  }

  private async tell(sets: readonly SpeakingRows[], toldFrom: number): Promise<Told> {
    const { facts, mesh, fingerprint } = await this.workshop.run('conditionFacts', {
      sets: await Promise.all(
        sets.map(async (set) => ({ readingId: set.primary.id, ...(await setSources(this.files, set)) })),
      ),
      source: sets[0].primary.source,
      toldFrom,
    });
    return { facts, solid: mesh ?? null, fingerprint: fingerprint ?? null };
  }

  private async keysOf(conditions: readonly Asked[], readings: readonly ReadingRow[]): Promise<Map<string, string>> {
    const toldFrom = await this.toldFrom();
    const own = new Map(conditions.map(({ id }) => [id, [] as ReadingRow[]]));
    for (const r of readings) own.get(r.conditionId)?.push(r);
    return new Map(
      conditions.flatMap(({ id, figuresFrom }) => {
        const sets = speakingSets(own.get(id)!, figuresFrom);
        return sets.length === 0 ? [] : [[id, keyOf(sets, toldFrom)] as const];
      }),
    );
  }

  private async toldFrom(): Promise<number> {
    return (await this.settings.get()).thresholds.deltaE.edgeToEdge;
  }
}

const keyOf = (sets: readonly SpeakingRows[], toldFrom: number): string =>
  keyFrom('facts', FIGURES_VERSION, toldFrom, sets.map(setKey));

/** Whether a kept file itself is at fault: it is gone, or holds no readings. A server that is stopped or busy says nothing of it. */
const isOfTheFile = (error: unknown): boolean =>
  error instanceof RakuenError ? error.getStatus() === 422 : (error as { code?: unknown }).code === 'ENOENT';

const UNREADABLE_FIGURE: Figure = {
  shape: 'missing',
  why: 'Its readings can’t be read any more: the file that is kept of them is missing or damaged.',
};
const UNREADABLE: ConditionFacts = {
  version: FIGURES_VERSION,
  figures: Object.fromEntries(MEASURES.map((m) => [m.key, UNREADABLE_FIGURE])),
  outline: [],
};

/** Facts with what was found at the bench; undefined where nothing is known of it at all. */
export function withObserved(
  facts: ConditionFacts | undefined,
  observations: readonly Observation[],
): ConditionFacts | undefined {
  if (facts) return { ...facts, figures: { ...facts.figures, ...observedFigures(observations) } };
  return observations.length > 0
    ? { version: FIGURES_VERSION, figures: computeFigures(undefined, observations), outline: [] }
    : undefined;
}
