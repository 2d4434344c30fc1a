import { createApi, fetchBaseQuery, type BaseQueryFn, type FetchArgs, type FetchBaseQueryError } from '@reduxjs/toolkit/query/react';
import type { ConditionInput, ConditionView } from '@rakuen/contract/conditions';
import type { LedgerView } from '@rakuen/contract/ledger';
import type { DecisionInput, DecisionView, MatchRequest, MatchView } from '@rakuen/contract/matches';
import type { PaperInput, PaperView } from '@rakuen/contract/papers';
import type { PictureJob, PictureView } from '@rakuen/contract/pictures';
import type { PrintInput, PrintProposal, PrintView } from '@rakuen/contract/prints';
import type { ReadingPreview } from '@rakuen/contract/readings';
import type { ApiError, Settings, TableState } from '@rakuen/contract/settings';

const plain = fetchBaseQuery({ baseUrl: '/api/' });

/** Errors reach the screens as the server words them; a server that can't be reached is worded here. */
const query: BaseQueryFn<string | FetchArgs, unknown, ApiError> = async (args, api, extra) => {
  const answer = await plain(args, api, extra);
  return answer.error ? { error: worded(answer.error) } : { data: answer.data };
};

function worded(error: FetchBaseQueryError): ApiError {
  if (typeof error.status === 'number' && error.data && typeof error.data === 'object' && 'message' in error.data) return error.data as ApiError;
  if (error.status === 'FETCH_ERROR') {
    return { statusCode: 503, message: 'Rakuen does not answer.', remedy: 'Look whether it still runs in its terminal; nothing you typed here is lost.' };
  }
  return { statusCode: 500, message: 'The answer could not be read.', remedy: 'Reload the page.' };
}

const form = (file: File, fields: Record<string, string | undefined>): FormData => {
  const body = new FormData();
  // Fields first: the server reads them before the file.
  for (const [key, value] of Object.entries(fields)) if (value) body.append(key, value);
  body.append('file', file);
  return body;
};

export interface ReadingUpload {
  file: File;
  measurementCondition?: string;
}

export const api = createApi({
  baseQuery: query,
  tagTypes: ['papers', 'conditions', 'pictures', 'matches', 'prints', 'ledger', 'settings', 'table'],
  endpoints: (build) => ({
    papers: build.query<PaperView[], void>({ query: () => 'papers', providesTags: ['papers'] }),
    addPaper: build.mutation<PaperView, PaperInput>({ query: (body) => ({ url: 'papers', method: 'POST', body }), invalidatesTags: ['papers'] }),
    changePaper: build.mutation<PaperView, { id: string; paper: PaperInput }>({
      query: ({ id, paper }) => ({ url: `papers/${id}`, method: 'PUT', body: paper }),
      invalidatesTags: ['papers', 'conditions', 'matches', 'ledger'],
    }),
    removePaper: build.mutation<void, string>({ query: (id) => ({ url: `papers/${id}`, method: 'DELETE' }), invalidatesTags: ['papers'] }),

    conditions: build.query<ConditionView[], void>({ query: () => 'conditions', providesTags: ['conditions'] }),
    addCondition: build.mutation<ConditionView, ConditionInput>({ query: (body) => ({ url: 'conditions', method: 'POST', body }), invalidatesTags: ['conditions', 'papers', 'matches'] }),
    changeCondition: build.mutation<ConditionView, { id: string; condition: ConditionInput }>({
      query: ({ id, condition }) => ({ url: `conditions/${id}`, method: 'PUT', body: condition }),
      invalidatesTags: ['conditions', 'matches', 'ledger'],
    }),
    removeCondition: build.mutation<void, string>({ query: (id) => ({ url: `conditions/${id}`, method: 'DELETE' }), invalidatesTags: ['conditions', 'papers', 'table', 'matches'] }),

    previewReading: build.mutation<ReadingPreview, ReadingUpload>({
      query: ({ file, ...fields }) => ({ url: 'readings/preview', method: 'POST', body: form(file, fields) }),
    }),
    keepReading: build.mutation<ConditionView, ReadingUpload & { conditionId: string }>({
      query: ({ conditionId, file, ...fields }) => ({ url: `conditions/${conditionId}/readings`, method: 'POST', body: form(file, fields) }),
      invalidatesTags: ['conditions', 'matches'],
    }),
    removeReading: build.mutation<ConditionView, string>({ query: (id) => ({ url: `readings/${id}`, method: 'DELETE' }), invalidatesTags: ['conditions', 'matches'] }),

    pictures: build.query<PictureView[], void>({ query: () => 'pictures', providesTags: ['pictures'] }),
    addPicture: build.mutation<PictureJob, { file: File; assumeSrgb?: 'yes' }>({
      query: ({ file, ...fields }) => ({ url: 'pictures', method: 'POST', body: form(file, fields) }),
    }),
    pictureJob: build.query<PictureJob, string>({ query: (id) => `pictures/jobs/${id}` }),
    cancelPictureJob: build.mutation<PictureJob, string>({ query: (id) => ({ url: `pictures/jobs/${id}`, method: 'DELETE' }) }),
    renamePicture: build.mutation<PictureView, { id: string; title: string }>({
      query: ({ id, title }) => ({ url: `pictures/${id}`, method: 'PATCH', body: { title } }),
      invalidatesTags: ['pictures', 'ledger'],
    }),
    removePicture: build.mutation<void, string>({ query: (id) => ({ url: `pictures/${id}`, method: 'DELETE' }), invalidatesTags: ['pictures', 'table'] }),

    match: build.query<MatchView, MatchRequest>({ query: (body) => ({ url: 'matches', method: 'POST', body }), providesTags: ['matches'] }),
    decisions: build.query<DecisionView[], void>({ query: () => 'decisions', providesTags: ['matches'] }),
    decide: build.mutation<DecisionView, DecisionInput>({ query: (body) => ({ url: 'decisions', method: 'POST', body }), invalidatesTags: ['matches', 'ledger'] }),
    takeBack: build.mutation<void, string>({ query: (id) => ({ url: `decisions/${id}`, method: 'DELETE' }), invalidatesTags: ['matches', 'ledger'] }),

    prints: build.query<PrintView[], void>({ query: () => 'prints', providesTags: ['prints'] }),
    proposal: build.query<PrintProposal, { pictureId: string; conditionId: string }>({ query: (params) => ({ url: 'prints/proposal', params }), providesTags: ['prints', 'conditions'] }),
    recordPrint: build.mutation<PrintView, PrintInput>({ query: (body) => ({ url: 'prints', method: 'POST', body }), invalidatesTags: ['prints', 'ledger'] }),
    changePrint: build.mutation<PrintView, { id: string; print: PrintInput }>({
      query: ({ id, print }) => ({ url: `prints/${id}`, method: 'PUT', body: print }),
      invalidatesTags: ['prints', 'ledger'],
    }),

    ledger: build.query<LedgerView, { q?: string; kind?: string }>({ query: (params) => ({ url: 'ledger', params }), providesTags: ['ledger'] }),

    settings: build.query<Settings, void>({ query: () => 'settings', providesTags: ['settings'] }),
    changeSettings: build.mutation<Settings, Settings>({ query: (body) => ({ url: 'settings', method: 'PUT', body }), invalidatesTags: ['settings'] }),

    table: build.query<TableState, void>({ query: () => 'table', providesTags: ['table'] }),
    layTable: build.mutation<TableState, TableState>({
      query: (body) => ({ url: 'table', method: 'PUT', body }),
      // The hand moves first; the server's word follows.
      async onQueryStarted(table, { dispatch, queryFulfilled }) {
        const moved = dispatch(api.util.updateQueryData('table', undefined, () => table));
        await queryFulfilled.catch(() => moved.undo());
      },
    }),
  }),
});

export const {
  usePapersQuery,
  useAddPaperMutation,
  useChangePaperMutation,
  useRemovePaperMutation,
  useConditionsQuery,
  useAddConditionMutation,
  useChangeConditionMutation,
  useRemoveConditionMutation,
  usePreviewReadingMutation,
  useKeepReadingMutation,
  useRemoveReadingMutation,
  usePicturesQuery,
  useAddPictureMutation,
  usePictureJobQuery,
  useCancelPictureJobMutation,
  useRenamePictureMutation,
  useRemovePictureMutation,
  useMatchQuery,
  useDecisionsQuery,
  useDecideMutation,
  useTakeBackMutation,
  usePrintsQuery,
  useProposalQuery,
  useRecordPrintMutation,
  useChangePrintMutation,
  useLedgerQuery,
  useSettingsQuery,
  useChangeSettingsMutation,
  useTableQuery,
  useLayTableMutation,
} = api;
