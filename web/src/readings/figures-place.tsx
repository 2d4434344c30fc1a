import { Fragment } from 'react';
import type { ConditionView } from '@rakuen/contract/conditions';
import { disagreements } from '@rakuen/core/measurement/claims';
import type { Measure } from '@rakuen/core/measurement/measures/measure';
import { formatNumber } from '@rakuen/core/measurement/show';
import { MEASURE_GROUPS } from '@rakuen/core/measurement/measures/registry';
import { Claimed, Measured, Term } from '../parts/figure.tsx';
import { GamutOutline } from '../parts/gamut-outline.tsx';
import { GroupHead } from '../parts/group-head.tsx';
import { bodyClaims, claimOf, NOT_CLAIMED } from '../parts/label.ts';
import { NeutralRampChart } from './neutral-ramp-chart.tsx';
import { ReadingImport } from './reading-import.tsx';
import { SpectraChart } from './spectra-chart.tsx';

interface Of {
  condition: ConditionView;
}

/** Every figure of the condition, its kind, and the claim beside it; greys, spectra, outline and how it was made. */
export function FiguresPlace({ condition }: Of) {
  return (
    <div className="grid grid-cols-[minmax(0,1.08fr)_minmax(0,1fr)] grid-rows-[auto_1fr] gap-x-8 gap-y-5 max-[1150px]:grid-cols-1 max-[1150px]:grid-rows-none">
      <section aria-label="Bring readings" className="min-[1151px]:col-start-2">
        <ReadingImport condition={condition} />
      </section>
      <section
        aria-label="Figures"
        className="min-[1151px]:col-start-1 min-[1151px]:row-span-2 min-[1151px]:row-start-1"
      >
        <WhatStands condition={condition} />
        <FigureTable condition={condition} />
      </section>
      <div className="space-y-5 min-[1151px]:col-start-2">
        <Drawn condition={condition} />
        <HowMade condition={condition} />
      </div>
    </div>
  );
}

/** What has to be known before the figures are read. */
function WhatStands({ condition: { paper, facts } }: Of) {
  const quarrels = facts ? disagreements(paper, facts.figures) : [];
  return (
    <>
      {facts?.source === 'profile' && (
        <p className="mb-3 border-l-4 border-ink bg-field px-3 py-1.5">
          The figures of colour come from a profile: nothing was measured. They stand in until a reading comes.
        </p>
      )}
      {!facts?.readingId && (
        <p className="mb-3 text-quiet">Nothing measured yet. Bring the file your instrument wrote, or read a chart.</p>
      )}
      {quarrels.map((q) => (
        <p key={q} className="mb-2 border-l-4 border-ink bg-field px-3 py-1.5">
          {q}
        </p>
      ))}
    </>
  );
}

function FigureTable({ condition }: Of) {
  const { facts } = condition;
  return (
    <table className="w-full">
      <thead className="sr-only">
        <tr>
          <th scope="col">Measure</th>
          <th scope="col">Found</th>
          <th scope="col">Claimed</th>
        </tr>
      </thead>
      {facts &&
        MEASURE_GROUPS.map((group) => (
          <tbody key={group.name}>
            <GroupHead name={group.name} columns={2}>
              <td className="pt-3 pb-0.5 text-right align-bottom text-[12px] text-quiet">
                {group.measures.some((m) => m.claim) && 'claimed'}
              </td>
            </GroupHead>
            {group.measures.map((m) => (
              <FigureRow key={m.key} measure={m} condition={condition} />
            ))}
          </tbody>
        ))}
    </table>
  );
}

/** Greys, spectra and the outline of the colours. */
function Drawn({ condition: { id, paper, facts } }: Of) {
  return (
    <>
      {facts?.ramp && (
        <section aria-label="Neutral ramp">
          <h3 className="mb-1 text-[1.1rem]">Neutral ramp</h3>
          <NeutralRampChart ramp={facts.ramp} />
        </section>
      )}
      {facts?.spectra && (
        <section aria-label="Spectra">
          <h3 className="mb-1 text-[1.1rem]">Spectra of white and black</h3>
          <SpectraChart spectra={facts.spectra} />
        </section>
      )}
      {facts && facts.outline.length > 0 && (
        <GamutOutline outlines={[{ id, name: paper.name, points: facts.outline, strong: true }]} height={300} />
      )}
    </>
  );
}

function HowMade({ condition }: Of) {
  const { paper, facts } = condition;
  return (
    <section aria-label="How it is made">
      <h3 className="mb-1 text-[1.1rem]">How it is made</h3>
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5">
        <Term name="Paper">
          {paper.maker} {paper.name}
          {bodyClaims(paper).map((words) => (
            <Fragment key={words}>
              , <Claimed>{words}</Claimed>
            </Fragment>
          ))}
        </Term>
        <Term name="Inks">
          {condition.inkSet}, {condition.blackInk}
          {condition.blackOvercoat && ', black overcoat'}
        </Term>
        <Term name="Mode">{[condition.printMode, condition.resolution].filter(Boolean).join(', ')}</Term>
        <Term name="Profile">{condition.profile || 'none'}</Term>
        {facts?.readingId && (
          <Term name="Gamut from">
            {facts.gamutMethod === 'device surface'
              ? 'the device cube’s surface'
              : facts.gamutMethod === 'modified hull'
                ? 'the hull of all patches, drawn in where they leave it hollow'
                : 'no colours: greys alone'}
            {facts.passes &&
              `; repeatability ${formatNumber(facts.passes.meanDeltaE00, 2)} ΔE00, the mean difference of a pass from the mean of all, over ${facts.passes.patches} ${facts.passes.patches === 1 ? 'patch' : 'patches'} read more than once`}
          </Term>
        )}
        {condition.notes && <Term name="Notes">{condition.notes}</Term>}
      </dl>
    </section>
  );
}

function FigureRow({ measure, condition }: { measure: Measure; condition: ConditionView }) {
  const figure = condition.facts!.figures[measure.key];
  const claim = claimOf(measure, condition.paper);
  return (
    <tr className="border-b border-line align-baseline">
      <th scope="row" className="py-1 pr-3 text-left font-normal" title={measure.definition}>
        {measure.name}{' '}
        {measure.scale === 'deltaE' && figure?.shape === 'colour' && (
          <span className="whitespace-nowrap text-quiet">{measure.unit}</span>
        )}
      </th>
      {figure?.shape === 'missing' ? (
        <td className="py-1 text-right text-[12.5px] leading-tight text-quiet">{figure.why}</td>
      ) : (
        <td className="py-1 text-right">
          <Measured measure={measure} condition={condition} note />
        </td>
      )}
      <td className="py-1 pl-3 text-right whitespace-nowrap">{claim !== NOT_CLAIMED && <Claimed>{claim}</Claimed>}</td>
    </tr>
  );
}
