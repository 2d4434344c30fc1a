import type { PhotographView } from '@rakuen/contract/photographs';
import type { PhotographKind } from '@rakuen/contract/vocabulary';
import type { CostView, RatesInput, RatesView, SpoilageView } from '@rakuen/contract/costs';
import type {
  DriftAccepted,
  EditionInput,
  EditionView,
  NumbersInput,
  NumberView,
} from '@rakuen/contract/editions';
import type { CaptionsView } from '@rakuen/contract/labels';
import type { LayoutInput, LayoutView } from '@rakuen/contract/layouts';
import type {
  PrintBegin,
  PrintDone,
  PrintInput,
  PrintLook,
  PrintSettle,
  PrintView,
  SettingWordsView,
} from '@rakuen/contract/prints';
import type { CauseView, MisprintInput, MisprintView, RunInput, RunView } from '@rakuen/contract/runs';
import type { BoxInput, BoxView } from '@rakuen/contract/stock';
import type { PrintState } from '@rakuen/contract/vocabulary';
import { api, form, from } from '../api/api.ts';

/** A print of a run, and the run. */
interface RunPrint {
  readonly id: string;
  readonly printId: string;
}

const WHAT_PRINTS_CHANGE = ['prints', 'ledger', 'runs', 'boxes'] as const;

/** Prints, runs, editions, the drawer, and what all of it costs. */
export const printApi = api.injectEndpoints({
  endpoints: (build) => ({
    prints: build.query<PrintView[], PrintState>({
      query: (state) => ({ url: 'prints', params: { state } }),
      providesTags: ['prints'],
    }),
    printLook: build.query<PrintLook, string>({
      query: (id) => `prints/${id}/look`,
      providesTags: ['prints', 'conditions'],
    }),
    printsByCode: build.query<PrintView[], string>({
      query: (code) => `prints/code/${encodeURIComponent(code)}`,
      providesTags: ['prints'],
    }),
    captions: build.query<string[], string>({
      query: (pictureId) => ({ url: 'prints/captions', params: { pictureId } }),
      transformResponse: (view: CaptionsView) => view.captions,
      providesTags: ['prints'],
    }),
    printMisprints: build.query<MisprintView[], string>({
      query: (id) => `prints/${id}/misprints`,
      providesTags: ['prints'],
    }),
    settingWords: build.query<SettingWordsView, string>({
      query: (printer) => ({ url: 'prints/words', params: { printer } }),
      providesTags: ['prints', 'conditions'],
    }),
    causes: build.query<CauseView[], void>({ query: () => 'prints/causes', providesTags: ['prints'] }),
    beginPrint: build.mutation<PrintView, PrintBegin>({
      query: (body) => ({ url: 'prints/begin', method: 'POST', body }),
      invalidatesTags: ['prints'],
    }),
    settlePrint: build.mutation<PrintView, { id: string; revision: number; change: PrintSettle }>({
      query: ({ id, revision, change }) => ({
        url: `prints/${id}`,
        method: 'PATCH',
        body: change,
        headers: from(revision),
      }),
      invalidatesTags: ['prints', 'runs'],
    }),
    printDone: build.mutation<PrintView, { id: string; done: PrintDone }>({
      query: ({ id, done }) => ({ url: `prints/${id}/done`, method: 'POST', body: done }),
      invalidatesTags: WHAT_PRINTS_CHANGE,
    }),
    changePrint: build.mutation<PrintView, { id: string; revision: number; print: PrintInput }>({
      query: ({ id, revision, print }) => ({
        url: `prints/${id}`,
        method: 'PUT',
        body: print,
        headers: from(revision),
      }),
      invalidatesTags: WHAT_PRINTS_CHANGE,
    }),
    addPhotograph: build.mutation<PhotographView, { printId: string; file: File; kind: PhotographKind; light: string }>(
      {
        query: ({ printId, file, kind, light }) => ({
          url: `prints/${printId}/photographs`,
          method: 'POST',
          body: form(file, { kind, light: light.trim() || undefined }),
        }),
        invalidatesTags: ['prints', 'events'],
      },
    ),
    removePhotograph: build.mutation<void, string>({
      query: (id) => ({ url: `prints/photographs/${id}`, method: 'DELETE' }),
      invalidatesTags: ['prints', 'events'],
    }),
    removePrint: build.mutation<void, string>({
      query: (id) => ({ url: `prints/${id}`, method: 'DELETE' }),
      invalidatesTags: WHAT_PRINTS_CHANGE,
    }),
    bookMisprint: build.mutation<MisprintView, { id: string; misprint: MisprintInput }>({
      query: ({ id, misprint }) => ({ url: `prints/${id}/misprints`, method: 'POST', body: misprint }),
      invalidatesTags: WHAT_PRINTS_CHANGE,
    }),
    takeMisprintBack: build.mutation<void, string>({
      query: (id) => ({ url: `prints/misprints/${id}`, method: 'DELETE' }),
      invalidatesTags: WHAT_PRINTS_CHANGE,
    }),

    runs: build.query<RunView[], void>({ query: () => 'runs', providesTags: ['runs'] }),
    planRun: build.mutation<RunView, RunInput>({
      query: (body) => ({ url: 'runs', method: 'POST', body }),
      invalidatesTags: ['runs'],
    }),
    runLooked: build.mutation<RunView, { id: string; looked: string[] }>({
      query: ({ id, looked }) => ({ url: `runs/${id}/looked`, method: 'PUT', body: { looked } }),
      invalidatesTags: ['runs'],
    }),
    sheetLooked: build.mutation<RunView, RunPrint & { looked: string[] }>({
      query: ({ id, printId, looked }) => ({
        url: `runs/${id}/prints/${printId}/looked`,
        method: 'PUT',
        body: { looked },
      }),
      invalidatesTags: ['runs'],
    }),
    runDone: build.mutation<RunView, RunPrint & { done: PrintDone }>({
      query: ({ id, printId, done }) => ({ url: `runs/${id}/prints/${printId}/done`, method: 'POST', body: done }),
      invalidatesTags: WHAT_PRINTS_CHANGE,
    }),
    runSpoilt: build.mutation<RunView, RunPrint & { misprint: MisprintInput }>({
      query: ({ id, printId, misprint }) => ({
        url: `runs/${id}/prints/${printId}/misprints`,
        method: 'POST',
        body: misprint,
      }),
      invalidatesTags: WHAT_PRINTS_CHANGE,
    }),
    closeRun: build.mutation<RunView, string>({
      query: (id) => ({ url: `runs/${id}/close`, method: 'POST' }),
      invalidatesTags: ['runs', 'prints'],
    }),

    editions: build.query<EditionView[], void>({ query: () => 'editions', providesTags: ['editions'] }),
    foundEdition: build.mutation<EditionView, EditionInput>({
      query: (body) => ({ url: 'editions', method: 'POST', body }),
      invalidatesTags: ['editions', 'ledger'],
    }),
    giveNumbers: build.mutation<NumberView[], { id: string; input: NumbersInput }>({
      query: ({ id, input }) => ({ url: `editions/${id}/numbers/many`, method: 'POST', body: input }),
      invalidatesTags: ['editions', 'prints', 'ledger'],
    }),
    acceptBox: build.mutation<EditionView, { id: string; accepted: DriftAccepted }>({
      query: ({ id, accepted }) => ({ url: `editions/${id}/accepted`, method: 'POST', body: accepted }),
      invalidatesTags: ['editions'],
    }),
    removeEdition: build.mutation<void, string>({
      query: (id) => ({ url: `editions/${id}`, method: 'DELETE' }),
      invalidatesTags: ['editions'],
    }),

    boxes: build.query<BoxView[], void>({ query: () => 'boxes', providesTags: ['boxes'] }),
    addBox: build.mutation<BoxView, BoxInput>({
      query: (body) => ({ url: 'boxes', method: 'POST', body }),
      invalidatesTags: ['boxes', 'prints'],
    }),
    changeBox: build.mutation<BoxView, { id: string; revision: number; box: BoxInput }>({
      query: ({ id, revision, box }) => ({ url: `boxes/${id}`, method: 'PUT', body: box, headers: from(revision) }),
      invalidatesTags: ['boxes', 'prints'],
    }),
    countBox: build.mutation<BoxView, { id: string; revision: number; left: number }>({
      query: ({ id, revision, left }) => ({
        url: `boxes/${id}/count`,
        method: 'PUT',
        body: { left },
        headers: from(revision),
      }),
      invalidatesTags: ['boxes', 'prints'],
    }),
    removeBox: build.mutation<void, string>({
      query: (id) => ({ url: `boxes/${id}`, method: 'DELETE' }),
      invalidatesTags: ['boxes', 'prints'],
    }),
    rates: build.query<RatesView, void>({ query: () => 'rates', providesTags: ['settings'] }),
    setRates: build.mutation<RatesView, { rates: RatesInput; revision: number }>({
      query: ({ rates, revision }) => ({ url: 'rates', method: 'PUT', body: rates, headers: from(revision) }),
      invalidatesTags: ['settings', 'prints'],
    }),
    cost: build.query<
      CostView,
      { pictureId: string; conditionId: string; widthMm: number; heightMm: number; printId?: string }
    >({
      query: (params) => ({ url: 'costs', params }),
      providesTags: ['prints', 'boxes', 'settings'],
    }),
    spoilage: build.query<SpoilageView, { from?: string; to?: string }>({
      query: (params) => ({ url: 'spoilage', params }),
      providesTags: ['prints', 'ledger'],
    }),
    layout: build.query<LayoutView, LayoutInput>({ query: (body) => ({ url: 'layouts', method: 'POST', body }) }),
  }),
});

export const {
  useAddPhotographMutation,
  useRemovePhotographMutation,
  usePrintsQuery,
  usePrintLookQuery,
  usePrintsByCodeQuery,
  useCaptionsQuery,
  usePrintMisprintsQuery,
  useSettingWordsQuery,
  useCausesQuery,
  useBeginPrintMutation,
  useSettlePrintMutation,
  usePrintDoneMutation,
  useChangePrintMutation,
  useRemovePrintMutation,
  useBookMisprintMutation,
  useTakeMisprintBackMutation,
  useRunsQuery,
  usePlanRunMutation,
  useRunLookedMutation,
  useSheetLookedMutation,
  useRunDoneMutation,
  useRunSpoiltMutation,
  useCloseRunMutation,
  useEditionsQuery,
  useFoundEditionMutation,
  useGiveNumbersMutation,
  useAcceptBoxMutation,
  useRemoveEditionMutation,
  useBoxesQuery,
  useAddBoxMutation,
  useChangeBoxMutation,
  useCountBoxMutation,
  useRemoveBoxMutation,
  useRatesQuery,
  useSetRatesMutation,
  useCostQuery,
  useSpoilageQuery,
  useLayoutQuery,
} = printApi;
