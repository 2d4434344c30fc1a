import { GLASSES } from '@rakuen/core/light/glass';
import { HANGING_KEYS, HANGINGS } from '@rakuen/core/proof/hung';
import { MAPS } from '@rakuen/core/proof/drawn';
import { EyeLine } from './eye-line.tsx';
import { LineChoice } from './line-choice.tsx';
import { RoomLine } from './room-line.tsx';
import { SizeLine } from './screen-scale.tsx';
import { SurfaceLine } from './surface-line.tsx';
import type { ProofDesk } from './use-proof-desk.ts';

/** The light it hangs in, and the glass before it. */
export function HangsIn({ desk: { where, setWhere, lights } }: { desk: ProofDesk }) {
  return (
    <>
      <LineChoice
        word="Light"
        label="Light it hangs in"
        widthCh={22}
        value={where.light}
        options={lights.map((l) => [l.key, l.name])}
        onChoose={(light) => setWhere({ ...where, light })}
      />
      <LineChoice
        label="Glass before it"
        widthCh={22}
        value={where.glass}
        options={GLASSES.map((g) => [g.key, g.name])}
        onChoose={(glass) => setWhere({ ...where, glass })}
      />
    </>
  );
}

/** How it is looked at. */
export function ProofLines({ desk }: { desk: ProofDesk }) {
  const { at, view, inHand, picture, held } = desk;
  const { pair, laid, surfaces, same } = inHand;
  return (
    <div className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-1">
      <EyeLine eye={desk.eye} onEye={desk.setEye} screen={desk.screen} light={desk.light} />
      <SurfaceLine
        held={held}
        onHeld={desk.setHeld}
        sheets={(same ? surfaces.slice(0, 1) : surfaces).flatMap(({ whole }) => whole ?? [])}
      />
      <LineChoice
        word="Compare with"
        label="Compare with"
        widthCh={26}
        value={inHand.notes.against ?? ''}
        options={[
          ['', desk.rightName],
          ...inHand.recipes.flatMap((r) => r.kept.map((k) => [k.id, `version “${k.name}”`] as const)),
          ...inHand.holdable.map((h) => [h.id, h.name] as const),
        ]}
        onChoose={(id) => inHand.notes.onAgainst(id || undefined)}
      />
      <LineChoice
        word="Hatch"
        label="Map over the proof"
        widthCh={22}
        value={view.map}
        options={MAPS.filter((m) => !same || m !== 'between the two').map((m) => [m, m])}
        onChoose={(map) => at.change({ map })}
      />
      <LineChoice
        word="In"
        label="How it hangs"
        widthCh={22}
        value={desk.surround}
        options={HANGING_KEYS.map((key) => [key, HANGINGS[key].name])}
        onChoose={desk.setSurround}
      />
      <SizeLine size={desk.size} viewingMm={picture.commission.viewingMm} />
      {laid && (
        <RoomLine
          room={desk.room}
          whites={[laid[0].seen.white, laid[1].seen.white]}
          names={[pair[0].condition.paper.name, pair[1].condition.paper.name]}
        />
      )}
    </div>
  );
}
