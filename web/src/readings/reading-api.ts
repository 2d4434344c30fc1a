import type { ConditionView } from '@rakuen/contract/conditions';
import type { BenchKind, BenchValue, ObservationInput } from '@rakuen/contract/observations';
import type { HistoryView, ReadingPreview, SetComparisonView } from '@rakuen/contract/readings';
import { api, form } from '../api/api.ts';

export interface ReadingUpload {
  file: File;
  measurementCondition?: string;
  batch?: string;
  /** ISO 8601. */
  printedAt?: string;
  /** Columns of a spreadsheet, JSON. */
  mapping?: string;
  /** Keeps readings that resemble another print more, as a set that gives no figures unless it is chosen. */
  keep?: 'apart';
  /** The print condition they are meant for. */
  conditionId?: string;
}

/** What was read of a print condition, and what was found of it at the bench. */
export const {
  usePreviewReadingMutation,
  useKeepReadingMutation,
  useLeaveOutPatchesMutation,
  useJoinReadingMutation,
  useRemoveReadingMutation,
  useHistoryQuery,
  useAgainstQuery,
  useTakeFiguresFromMutation,
  useObserveMutation,
  useForgetObservationMutation,
  useKeepScanMutation,
  useSimulateScanMutation,
  useReadBenchMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    previewReading: build.mutation<ReadingPreview, ReadingUpload>({
      query: ({ file, ...fields }) => ({ url: 'readings/preview', method: 'POST', body: form(file, fields) }),
    }),
    keepReading: build.mutation<ConditionView, ReadingUpload & { conditionId: string }>({
      query: ({ conditionId, file, ...fields }) => ({
        url: `conditions/${conditionId}/readings`,
        method: 'POST',
        body: form(file, fields),
      }),
      invalidatesTags: ['conditions', 'matches', 'history'],
    }),
    leaveOutPatches: build.mutation<ConditionView, { readingId: string; patches: string[] }>({
      query: ({ readingId, patches }) => ({ url: `readings/${readingId}/left-out`, method: 'PUT', body: { patches } }),
      invalidatesTags: ['conditions', 'matches', 'history'],
    }),
    joinReading: build.mutation<ConditionView, string>({
      query: (id) => ({ url: `readings/${id}/apart`, method: 'DELETE' }),
      invalidatesTags: ['conditions', 'matches', 'history'],
    }),
    removeReading: build.mutation<ConditionView, string>({
      query: (id) => ({ url: `readings/${id}`, method: 'DELETE' }),
      invalidatesTags: ['conditions', 'matches', 'history'],
    }),
    against: build.query<SetComparisonView, { later: string; first: string }>({
      query: ({ later, first }) => `readings/${later}/against/${first}`,
      providesTags: ['history'],
    }),
    history: build.query<HistoryView, string>({
      query: (conditionId) => `conditions/${conditionId}/history`,
      providesTags: ['history'],
    }),
    takeFiguresFrom: build.mutation<ConditionView, { conditionId: string; readingId?: string }>({
      query: ({ conditionId, readingId }) => ({
        url: `conditions/${conditionId}/figures-from`,
        method: 'PUT',
        body: { readingId },
      }),
      invalidatesTags: ['conditions', 'matches'],
    }),
    observe: build.mutation<ConditionView, { conditionId: string; observations: ObservationInput[]; sure?: boolean }>({
      query: ({ conditionId, ...body }) => ({
        url: `conditions/${conditionId}/observations`,
        method: 'POST',
        body,
      }),
      invalidatesTags: ['conditions'],
    }),
    forgetObservation: build.mutation<ConditionView, string>({
      query: (id) => ({ url: `observations/${id}`, method: 'DELETE' }),
      invalidatesTags: ['conditions'],
    }),
    keepScan: build.mutation<
      ConditionView,
      { conditionId: string; file: File; ppi: string; by: string; instrument: string }
    >({
      query: ({ conditionId, file, ...fields }) => ({
        url: `conditions/${conditionId}/scans`,
        method: 'POST',
        body: form(file, fields),
      }),
      invalidatesTags: ['conditions'],
    }),
    simulateScan: build.mutation<ConditionView, { conditionId: string; by: string }>({
      query: ({ conditionId, by }) => ({
        url: `conditions/${conditionId}/scans/simulated`,
        method: 'POST',
        body: { by },
      }),
      invalidatesTags: ['conditions'],
    }),
    readBench: build.mutation<BenchValue, { conditionId: string; kind: BenchKind }>({
      query: ({ conditionId, kind }) => ({ url: `conditions/${conditionId}/bench`, method: 'POST', body: { kind } }),
    }),
  }),
});
