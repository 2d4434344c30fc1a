import { skipToken } from '@reduxjs/toolkit/query/react';
import { useEffect, useMemo, useState } from 'react';
import type { ConditionView } from '@rakuen/contract/conditions';
import type { SheetView } from '@rakuen/contract/sheets';
import { GLASSES, type Glass } from '@rakuen/core/light/glass';
import { viewingLight } from '@rakuen/core/light/own-lamp';
import { TABLE_LIGHTS, type ViewingLight } from '@rakuen/core/light/table-lights';
import type { Figure } from '@rakuen/core/measurement/figure';
import { MEASURES } from '@rakuen/core/measurement/measures/registry';
import type { PrintSpectra } from '@rakuen/core/light/print-spectra';
import { useAtTableMutation, useLightsQuery, useSheetsQuery, useTableQuery } from '../api/api.ts';
import type { LitFacts } from './compare-worker.ts';
import type { ShownCondition } from '../parts/figure.tsx';
import { desk } from './desk.ts';

/** The light over the table and the glass before it, with what can be chosen. */
export function useLight() {
  const { data: table } = useTableQuery();
  const { data: imported } = useLightsQuery();
  const [atTable] = useAtTableMutation();
  const own = useMemo(
    (): ViewingLight[] =>
      (imported ?? []).map(({ id, name, uv, startNm, stepNm, values }) =>
        viewingLight({ id, name, uv, spectrum: { startNm, stepNm, values } }),
      ),
    [imported],
  );
  const lights = useMemo(() => [...TABLE_LIGHTS, ...own], [own]);
  const light = lights.find((l) => l.key === table?.light) ?? TABLE_LIGHTS[0];
  const glass: Glass = GLASSES.find((g) => g.key === table?.glass) ?? GLASSES[0];
  return {
    lights,
    own,
    imported,
    light,
    glass,
    /** Nothing stands between the figures and what was measured. */
    plain: light.key === TABLE_LIGHTS[0].key && glass.key === GLASSES[0].key,
    choose: (id: string) => void atTable({ deed: 'light', id }),
    chooseGlass: (id: string) => void atTable({ deed: 'glass', id }),
  };
}

const floats = (base64: string) => {
  const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
  return new Float32Array(bytes.buffer);
};

function ready({ spectra: s, mesh }: SheetView): PrintSpectra | undefined {
  return (
    s && {
      startNm: s.startNm,
      stepNm: s.stepNm,
      bands: s.bands,
      reflected: floats(s.reflected),
      luminous: s.luminous ? floats(s.luminous) : undefined,
      estimated: s.estimated,
      white: s.white,
      black: s.black,
      greys: s.greys,
      corners: s.corners,
      triangles: mesh?.triangles ?? [],
    }
  );
}

/** Changes whenever another reading speaks, or serves the one that does. */
const stampOf = (c: ConditionView) => [c.facts?.readingId, c.facts?.toldFrom, ...c.readings.map((r) => r.id)].join('/');

const WAITING: Figure = { shape: 'missing', why: 'Being computed for this light.' };

/** What a light bears on, blanked until it was computed for it; what the bench found stays. */
const withoutPatches = (figures: Readonly<Record<string, Figure>>): Record<string, Figure> => ({
  ...figures,
  ...Object.fromEntries(MEASURES.flatMap((m) => ('observe' in m ? [] : [[m.key, WAITING]]))),
});

/** A print condition as the light shows it. */
export type LitCondition = ShownCondition & {
  /** How the light bears on it: as chosen; or why it can't. */
  readonly underLight: 'as measured' | 'recomputed' | 'estimated' | 'no spectra' | 'no UV reading' | 'waiting';
};

/**
 * What lies on the table, under the light over it: figures, ramps and outlines recomputed beside the screen. A print
 * without spectra keeps what was measured, and says so.
 * @param solid whether the solids are drawn, and are wanted too
 */
export function useLitTable(laid: readonly ConditionView[], solid: boolean) {
  const { light, glass, plain } = useLight();
  const measured = useMemo(() => laid.filter((c) => c.facts?.readingId), [laid]);
  const { currentData: sheets } = useSheetsQuery(
    measured.length > 0 ? measured.map((c) => ({ id: c.id, stamp: stampOf(c) })) : skipToken,
  );
  const [lit, setLit] = useState<{ key: string; facts: Record<string, LitFacts> }>({ key: '', facts: {} });
  const [kept, setKept] = useState('');
  const stamp = sheets ? measured.map(stampOf).join() : '';

  useEffect(() => {
    if (!sheets) return;
    let live = true;
    void Promise.all(
      sheets.map(async (s) => {
        const sheet = ready(s);
        const facts = laid.find((c) => c.id === s.conditionId)?.facts;
        if (sheet && facts) await desk().keep(s.conditionId, sheet, facts.figures, facts.toldFrom);
      }),
    ).then(() => live && setKept(stamp));
    return () => void (live = false);
    // The sheets change with their readings alone.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [stamp]);

  const key = `${light.key}/${light.source}/${glass.key}/${kept}/${solid ? 'solid' : ''}`;
  useEffect(() => {
    if (!sheets || kept !== stamp || kept === '') return;
    let live = true;
    void Promise.all(
      sheets
        .filter((s) => s.spectra)
        .map(async (s) => [s.conditionId, await desk().lit(s.conditionId, light, glass.key, solid)] as const),
    ).then((all) => {
      if (live) setLit({ key, facts: Object.fromEntries(all.flatMap(([id, f]) => (f ? [[id, f]] : []))) });
    });
    return () => void (live = false);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);

  // What was computed for another light, or for other readings, is no figure of this one.
  const current = lit.key === key;
  const under = glass.key === GLASSES[0].key ? light.name : `${light.name}, behind ${glass.name}`;
  const conditions = useMemo(
    () =>
      laid.map((c): LitCondition => {
        if (plain || !c.facts?.readingId) return { ...c, underLight: 'as measured' };
        const sheet = sheets?.find((s) => s.conditionId === c.id);
        const facts = current ? lit.facts[c.id] : undefined;
        if (facts && sheet)
          return {
            ...c,
            lit: { under, keys: new Set(Object.keys(facts.figures)), brightenerUnknown: !sheet.spectra?.luminous },
            facts: {
              ...c.facts,
              figures: { ...c.facts.figures, ...facts.figures },
              ramp: facts.ramp,
              outline: facts.outline,
            },
            underLight: !sheet.spectra?.luminous
              ? 'no UV reading'
              : sheet.spectra.estimated
                ? 'estimated'
                : 'recomputed',
          };
        const waiting = !sheet || sheet.spectra !== undefined;
        return {
          ...c,
          lit: { under, keys: new Set() },
          facts: {
            ...c.facts,
            figures: waiting ? withoutPatches(c.facts.figures) : c.facts.figures,
            ramp: undefined,
            outline: [],
          },
          underLight: waiting ? 'waiting' : 'no spectra',
        };
      }),
    [laid, plain, sheets, current, lit, under],
  );
  /** Solids under the light; none where a print can’t be shown in it. */
  const solids = Object.fromEntries(
    (sheets ?? []).flatMap((s) => {
      const mesh = plain ? s.mesh : current ? lit.facts[s.conditionId]?.mesh : undefined;
      return mesh ? [[s.conditionId, mesh] as const] : [];
    }),
  );
  return {
    conditions,
    solids,
    ready: kept !== '' && kept === stamp,
    light,
    glass,
    plain,
    settled: plain || current,
  };
}
