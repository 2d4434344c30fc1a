import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import { weightsOf } from '@rakuen/core/match/schools';
import { Button } from '../parts/button.tsx';
import { useKeys } from '../parts/use-keys.ts';
import { OtherPresets, Turns } from './beside-ranking.tsx';
import { CostPlace } from './cost-place.tsx';
import { KeptMatches } from './kept-matches.tsx';
import { PairSeen } from './ranking-list.tsx';
import type { Ranked, useSchool } from './use-ranking.ts';
import type { Versions } from './use-versions.ts';
import { VersionsPanel } from './versions-panel.tsx';
import { WeightsPanel } from './weights-panel.tsx';

export type ToolKey = 'pair' | 'versions' | 'turns' | 'cost' | 'weights' | 'kept';

interface Props extends Ranked {
  readonly picture: PictureView;
  readonly conditionIds: string[] | undefined;
  readonly school: ReturnType<typeof useSchool>;
  readonly versions: Versions;
  readonly pair: readonly [ConditionHead, ConditionHead] | undefined;
  readonly open: ToolKey | undefined;
  readonly onOpen: (key: ToolKey | undefined) => void;
  /** Shows the marked places at print size. */
  readonly onCrops: () => void;
}

/** What is asked of a ranking as a whole, above it: each opens under its button, one at a time. */
export function MatchTools(props: Props) {
  const { at, pair, open, onOpen, onCrops } = props;
  useKeys({ b: () => pair && onOpen(open === 'pair' ? undefined : 'pair') });
  const tools: readonly (readonly [ToolKey, string, boolean])[] = [
    ['pair', 'Selected pair', pair !== undefined],
    ['versions', 'Versions', true],
    ['turns', 'What would change the winner', true],
    ['cost', 'Cost', at.edge !== undefined],
    ['weights', 'Weights', true],
    ['kept', 'Saved matches', true],
  ];
  return (
    <div className="mb-2">
      <div className="flex flex-wrap gap-1.5">
        {tools
          .filter(([, , there]) => there)
          .map(([key, name]) => (
            <Button key={key} aria-expanded={open === key} onClick={() => onOpen(open === key ? undefined : key)}>
              {name}
            </Button>
          ))}
        <Button onClick={onCrops}>Marked places</Button>
      </div>
      {open && (
        <div className="mt-2 border-t border-line pt-3 pb-2">
          <Tool {...props} open={open} />
        </div>
      )}
    </div>
  );
}

function Tool({ open, ...props }: Props & { open: ToolKey }) {
  const { at, ranking, places, picture, conditionIds, school, versions, pair } = props;
  switch (open) {
    case 'pair':
      return pair ? <PairSeen {...{ pair, picture, places }} /> : null;
    case 'versions':
      return <VersionsPanel {...{ at, places, picture, versions }} />;
    case 'turns':
      return (
        <div className="grid grid-cols-2 gap-x-8 text-[13px] max-[1150px]:grid-cols-1">
          <Turns {...{ at, ranking, picture, conditionIds, school }} />
          <OtherPresets {...{ at, school }} />
        </div>
      );
    case 'cost':
      return at.edge ? (
        <CostPlace
          edge={at.edge}
          unpriced={places
            .filter((p) => !at.versionOf(p.id) && !at.edge!.sheets.some((s) => s.id === p.id))
            .map((p) => p.id)}
          conditionOf={at.conditionOf}
        />
      ) : null;
    case 'weights':
      return <WeightsPanel weights={school.weights} onWeights={school.turn} />;
    case 'kept':
      return (
        <KeptMatches
          pictureId={picture.id}
          conditionIds={conditionIds}
          weights={weightsOf(school.weights)}
          now={places}
        />
      );
  }
}
