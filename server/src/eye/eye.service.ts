import { randomInt, randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { blindCodes, blindOrder } from '@rakuen/core/eye/blind-order';
import { bradleyTerry, type PairedChoice } from '@rakuen/core/eye/bradley-terry';
import { decide } from '@rakuen/core/eye/decision';
import type { EyeChoice, EyeInput, EyeLabels, EyeView } from '@rakuen/contract/eye';
import { notFound, RakuenError } from '../app/errors.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { EyeChoiceRow, EyeSessionRow } from './eye.entity.ts';
import { whole } from '../store/rows.ts';

const MOST_SEED = 1_000_000;

/** Blind comparisons: prints behind codes, in random order and sides; the codes are resolved when all pairs were seen. */
@Injectable()
export class EyeService {
  constructor(
    @InjectRepository(EyeSessionRow) private readonly sessions: Repository<EyeSessionRow>,
    @InjectRepository(EyeChoiceRow) private readonly choices: Repository<EyeChoiceRow>,
    private readonly conditions: ConditionsService,
  ) {}

  async list(): Promise<EyeView[]> {
    return Promise.all((await this.sessions.find({ order: { createdAt: 'DESC' } })).map((s) => this.viewOf(s)));
  }

  async begin(input: EyeInput): Promise<EyeView> {
    const ids = [...new Set(input.conditionIds)];
    if (ids.length < 2)
      throw new RakuenError(400, 'One print can’t be compared.', {
        field: 'conditionIds',
        remedy: 'Choose two to six prints.',
      });
    if (input.criterion === 'a question of my own' && !input.question?.trim())
      throw new RakuenError(400, 'The question is missing.', {
        field: 'question',
        remedy: 'Write what the eye is asked.',
      });
    for (const id of ids) await this.conditions.get(id);
    const seed = randomInt(MOST_SEED);
    const row = this.sessions.create({
      ...input,
      clarity: input.clarity ?? 'clear',
      conditionIds: ids,
      question: input.question?.trim() ?? '',
      observer: input.observer.trim(),
      light: input.light.trim(),
      id: randomUUID(),
      createdAt: new Date().toISOString(),
      seed,
      pairs: blindOrder(ids.length, input.times, seed),
    });
    await this.sessions.insert(whole(row));
    return this.viewOf(row);
  }

  async view(id: string): Promise<EyeView> {
    return this.viewOf(await this.get(id));
  }

  /** Apart from the comparison itself: nobody is blind who has read it. */
  async labels(id: string): Promise<EyeLabels> {
    const { conditionIds, seed } = await this.get(id);
    const all = await this.conditions.list();
    return {
      labels: labelsOf(conditionIds, blindCodes(conditionIds.length, seed)).map((label) => {
        const c = all.find((o) => o.id === label.conditionId);
        return { ...label, name: c ? `${c.paper.name}, ${c.printer}, ${c.mediaSetting}` : 'removed' };
      }),
    };
  }

  async choose(id: string, { turn, said }: EyeChoice): Promise<EyeView> {
    const session = await this.get(id);
    const made = await this.choices.countBy({ sessionId: id });
    if (made >= session.pairs.length)
      throw new RakuenError(409, 'Every pair was seen.', { remedy: 'Look at what the eye said, or begin anew.' });
    if (turn !== made)
      throw new RakuenError(409, 'Another pair is next.', { field: 'turn', remedy: 'Load the comparison again.' });
    await this.choices.insert({ id: randomUUID(), sessionId: id, turn, said, at: new Date().toISOString() });
    return this.viewOf(session);
  }

  async undo(id: string): Promise<EyeView> {
    const session = await this.get(id);
    const last = await this.choices.findOne({ where: { sessionId: id }, order: { turn: 'DESC' } });
    if (!last) throw new RakuenError(409, 'Nothing was said yet.', { remedy: 'Look at the first pair.' });
    await this.choices.delete(last.id);
    return this.viewOf(session);
  }

  async remove(id: string): Promise<void> {
    await this.get(id);
    await this.sessions.delete(id);
  }

  private async get(id: string): Promise<EyeSessionRow> {
    const row = await this.sessions.findOneBy({ id });
    if (!row) throw notFound('comparison by eye');
    return row;
  }

  private async viewOf(session: EyeSessionRow): Promise<EyeView> {
    const { seed, pairs, ...head } = session;
    const codes = blindCodes(session.conditionIds.length, seed);
    const made = await this.choices.find({ where: { sessionId: session.id }, order: { turn: 'ASC' } });
    const next = pairs[made.length];
    const answers = made.map(({ turn, said }): PairedChoice => ({
      first: pairs[turn].left,
      second: pairs[turn].right,
      said: said === 'left' ? 'first' : said === 'right' ? 'second' : 'neither',
    }));
    const scale = next ? undefined : bradleyTerry(codes.length, answers);
    return {
      ...head,
      question: session.question || undefined,
      labels: next ? [] : labelsOf(session.conditionIds, codes),
      pairCount: pairs.length,
      choices: made.map(({ turn, said }) => ({ left: codes[pairs[turn].left], right: codes[pairs[turn].right], said })),
      left: next && codes[next.left],
      right: next && codes[next.right],
      places: scale
        ? scale.places
            .map((p, i) => ({
              conditionId: session.conditionIds[i],
              code: codes[i],
              scale: p.scale,
              error: Number.isFinite(p.error) ? p.error : undefined,
            }))
            .sort((p, q) => q.scale - p.scale)
        : [],
      chiSquared: scale?.chiSquared,
      ...(next ? {} : decide(codes.length, answers, session.clarity)),
    };
  }
}

const labelsOf = (conditionIds: readonly string[], codes: readonly string[]) =>
  conditionIds.map((conditionId, i) => ({ conditionId, code: codes[i] })).sort((p, q) => p.code.localeCompare(q.code));
