import { Injectable } from '@nestjs/common';
import { csvOf } from '@rakuen/core/formats/csv-table';
import type { LedgerEntry, LedgerQuery } from '@rakuen/contract/ledger';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { MatchesService } from '../matches/matches.service.ts';
import { PicturesService } from '../pictures/pictures.service.ts';
import { PrintsService } from '../prints/prints.service.ts';

@Injectable()
export class LedgerService {
  constructor(
    private readonly matches: MatchesService,
    private readonly prints: PrintsService,
    private readonly pictures: PicturesService,
    private readonly conditions: ConditionsService,
  ) {}

  /** Decisions and prints, newest first. */
  async entries(query: LedgerQuery): Promise<LedgerEntry[]> {
    const pictures = new Map((await this.pictures.list()).map((p) => [p.id, p]));
    const conditions = new Map((await this.conditions.list()).map((c) => [c.id, c]));
    const about = (pictureId: string, conditionId: string) => {
      const condition = conditions.get(conditionId)!;
      return {
        pictureId,
        picture: pictures.get(pictureId)!.title,
        conditionId,
        paper: `${condition.paper.maker} ${condition.paper.name}`,
        condition: `${condition.printer}, ${condition.mediaSetting}, ${condition.printMode}`,
      };
    };
    const decisions = (await this.matches.list()).map((d): LedgerEntry => ({
      id: d.id,
      kind: 'decision',
      at: d.decidedAt,
      ...about(d.pictureId, d.conditionId),
      outcome: d.stamp,
      reason: d.reason,
      details: defined({
        decidedBy: d.decidedBy,
        place: d.place,
        costDeltaE: d.costDeltaE,
        outsideShare: d.outsideShare,
      }),
    }));
    const prints = (await this.prints.list()).map((p): LedgerEntry => ({
      id: p.id,
      kind: 'print',
      at: p.printedOn,
      ...about(p.pictureId, p.conditionId),
      outcome: p.verdict,
      reason: p.verdictReason,
      details: defined({
        widthMm: p.widthMm,
        heightMm: p.heightMm,
        copies: p.copies,
        ...p.settings,
        carriedOver: p.carriedOver.join(' '),
        misprints: p.misprints,
        misprintCause: p.misprintCause,
        notes: p.notes,
        recordedAt: p.recordedAt,
      }),
    }));
    const words = (query.q ?? '').toLowerCase().split(/\s+/).filter(Boolean);
    return [...decisions, ...prints]
      .filter((e) => !query.kind || e.kind === query.kind)
      .filter((e) => {
        const text = [e.picture, e.paper, e.condition, e.outcome, e.reason, e.at, e.kind, ...Object.values(e.details)]
          .join(' ')
          .toLowerCase();
        return words.every((w) => text.includes(w));
      })
      .sort((p, q) => q.at.localeCompare(p.at));
  }

  /** The ledger as CSV (RFC 4180), one line an entry, every detail a column. */
  async csv(query: LedgerQuery): Promise<string> {
    const entries = await this.entries(query);
    const base = ['kind', 'at', 'picture', 'paper', 'condition', 'outcome', 'reason'] as const;
    const details = [...new Set(entries.flatMap((e) => Object.keys(e.details)))];
    return csvOf([
      [...base, ...details],
      ...entries.map((e) => [...base.map((k) => e[k]), ...details.map((k) => e.details[k] ?? '')]),
    ]);
  }
}

function defined(
  details: Record<string, string | number | boolean | undefined>,
): Record<string, string | number | boolean> {
  return Object.fromEntries(Object.entries(details).filter(([, v]) => v !== undefined && v !== '')) as Record<
    string,
    string | number | boolean
  >;
}
