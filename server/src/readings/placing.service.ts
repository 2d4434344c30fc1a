import { Injectable } from '@nestjs/common';
import { namesPaper, placing, type Fingerprint, type Placing } from '@rakuen/core/measurement/fingerprint';
import type { PlacingView, ResemblanceView } from '@rakuen/contract/readings';
import type { ConditionHead } from '@rakuen/contract/conditions';
import { RakuenError } from '../app/errors.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { FactsService } from '../conditions/facts.service.ts';

/** So many resemblances are shown. */
const MAX_SHOWN = 3;

/** What incoming readings are compared with, looked up once for many of them. */
export interface KnownPrints {
  readonly prints: ReadonlyMap<string, Fingerprint>;
  readonly conditions: readonly ConditionHead[];
}

/** Whether incoming readings belong where they are meant for: they are compared with every print condition that was read. */
@Injectable()
export class PlacingService {
  constructor(
    private readonly facts: FactsService,
    private readonly conditions: ConditionsService,
  ) {}

  async known(): Promise<KnownPrints> {
    return { prints: await this.facts.fingerprints(), conditions: await this.conditions.heads() };
  }

  /**
   * @param conditionId what the readings are meant for; absent where that is not known yet
   * @param words the file's name and description
   */
  async of(incoming: readonly Fingerprint[], meantFor: MeantFor): Promise<PlacingView> {
    return placed(incoming, meantFor, await this.known());
  }
}

/** What incoming readings are meant for. */
export interface MeantFor {
  readonly conditionId?: string;
  readonly mayDiffer: boolean;
  /** The file's name and description. */
  readonly words: string;
}

/** Compares incoming readings with what is known; see {@link PlacingService}. */
export function placed(
  incoming: readonly Fingerprint[],
  { conditionId, mayDiffer, words }: MeantFor,
  { prints, conditions }: KnownPrints,
): PlacingView {
  const others = [...prints].flatMap(([id, print]) => (id === conditionId ? [] : [{ id, print }]));
  const heads = new Map(conditions.map((c) => [c.id, c]));
  const nameOf = (id: string) => {
    const head = heads.get(id);
    return head ? `${head.paper.name}, ${head.mediaSetting}` : '';
  };
  const meant = conditionId ? heads.get(conditionId) : undefined;
  const found = placing(incoming, conditionId ? prints.get(conditionId) : undefined, others, {
    mayDiffer,
    named: meant !== undefined && namesPaper(words, meant.paper.name),
  });
  const own = conditionId && nameOf(conditionId);
  const resembles = found.others
    .slice(0, MAX_SHOWN)
    .map((o): ResemblanceView => ({ conditionId: o.id, name: nameOf(o.id), deltaE00: o.deltaE00, common: o.common }));
  return {
    resembles,
    own: found.own && conditionId ? { conditionId, name: own || '', ...found.own } : undefined,
    otherBox: found.against === 'unlike its own' || undefined,
    against: found.against && inWords(found, resembles[0], own || 'this print condition'),
  };
}

const figure = (deltaE00: number) => deltaE00.toFixed(1);

function inWords({ own, against, incomparable }: Placing, best: ResemblanceView | undefined, name: string): string {
  if (against === 'another print' && best) {
    const not = own
      ? `, not ${name} (${figure(own.deltaE00)})`
      : incomparable
        ? `; what is kept for ${name} shares no measurement condition or patches with it`
        : `; nothing was read of ${name} yet`;
    return `This looks like ${best.name} (${figure(best.deltaE00)} ΔE00 over ${best.common} common patches)${not}.`;
  }
  return `This differs from what is kept for ${name} by ${figure(own!.deltaE00)} ΔE00 over ${own!.common} common patches.`;
}

/** The readings resemble another print than the one they are meant for. */
export class MisplacedError extends RakuenError {
  constructor(file: string, view: PlacingView) {
    super(409, view.against!, {
      file,
      field: 'keep',
      remedy: view.otherBox
        ? 'Choose another print condition, state another box (batch), or keep it here apart (keep=apart).'
        : `File it under ${view.resembles[0].name}, or keep it here apart (keep=apart).`,
      current: view,
    });
  }
}
