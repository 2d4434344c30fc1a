import { nanoid } from '@reduxjs/toolkit';
import {
  createApi,
  fetchBaseQuery,
  type BaseQueryApi,
  type BaseQueryFn,
  type FetchArgs,
  type FetchBaseQueryError,
} from '@reduxjs/toolkit/query/react';
import type { ChartInput, ChartView } from '@rakuen/contract/charts';
import type { ConditionHead, ConditionInput, ConditionView, LikesView } from '@rakuen/contract/conditions';
import type { DecisionInput, DecisionView, MatchRequest, MatchView } from '@rakuen/contract/matches';
import type { BenchKind, BenchValue, ObservationInput } from '@rakuen/contract/observations';
import type { PackDone, PackInput, PackView } from '@rakuen/contract/packs';
import type { PaperInput, PaperView } from '@rakuen/contract/papers';
import type { PictureJob, PictureView } from '@rakuen/contract/pictures';
import type { HistoryView, ReadingPreview } from '@rakuen/contract/readings';
import type {
  MendInput,
  PatchPlace,
  SessionHead,
  SessionInput,
  SessionView,
  SheetPlace,
  StripPlace,
} from '@rakuen/contract/sessions';
import type { BackupView } from '@rakuen/contract/backups';
import type { BinEntry, EventView } from '@rakuen/contract/events';
import type { EyeChoice, EyeInput, EyeLabels, EyeView } from '@rakuen/contract/eye';
import type { ProfileView, SolidView } from '@rakuen/contract/profiles';
import type { LightView, SheetView } from '@rakuen/contract/sheets';
import type { TrialInput, TrialView } from '@rakuen/contract/trials';
import type { ApiError, Settings, TableDeedInput, TableState } from '@rakuen/contract/settings';
import { afterDeed } from '@rakuen/core/table/table';

const plain = fetchBaseQuery({ baseUrl: '/api/' });

/** What is under way, by what it asks for: a double click is one deed. */
const underWay = new Map<string, ReturnType<typeof plain>>();
const SECOND_TRY_MS = 400;

/**
 * Whatever makes something carries a key of its own. It is asked again once where no answer came, under the same key: what was done before the line
 * broke is not done twice.
 */
async function keyed(args: FetchArgs, api: BaseQueryApi, extra: object) {
  const headers = { ...(args.headers as Record<string, string> | undefined), 'Idempotency-Key': nanoid() };
  const first = await plain({ ...args, headers }, api, extra);
  if (first.error?.status !== 'FETCH_ERROR' || api.signal.aborted) return first;
  await new Promise((go) => setTimeout(go, SECOND_TRY_MS));
  return plain({ ...args, headers }, api, extra);
}

function asked(args: string | FetchArgs, api: BaseQueryApi, extra: object) {
  // A question that is asked by POST makes nothing, and may be called off by whoever asked.
  if (typeof args === 'string' || args.method !== 'POST' || args.body instanceof FormData || api.type !== 'mutation')
    return plain(args, api, extra);
  const deed = JSON.stringify([args.url, args.body]);
  const same = underWay.get(deed);
  if (same) return same;
  const answer = Promise.resolve(keyed(args, api, extra)).finally(() => underWay.delete(deed));
  underWay.set(deed, answer);
  return answer;
}

/** Errors reach the screens as the server words them; a server that can't be reached is worded here. */
const query: BaseQueryFn<string | FetchArgs, unknown, ApiError> = async (args, api, extra) => {
  const answer = await asked(args, api, extra);
  return answer.error ? { error: worded(answer.error) } : { data: answer.data };
};

function worded(error: FetchBaseQueryError): ApiError {
  if (typeof error.status === 'number' && error.data && typeof error.data === 'object' && 'message' in error.data)
    return error.data as ApiError;
  if (error.status === 'FETCH_ERROR') {
    return {
      statusCode: 503,
      message: 'Rakuen does not answer.',
      remedy: 'Look whether it still runs in its terminal; nothing you typed here is lost.',
    };
  }
  return { statusCode: 500, message: 'The answer could not be read.', remedy: 'Reload the page.' };
}

/** From which revision a thing is changed: the server tells where another was quicker. */
export const from = (revision: number) => ({ 'If-Match': `"${revision}"` });

export const form = (file: File, fields: Record<string, string | undefined>): FormData => {
  const body = new FormData();
  // Fields first: the server reads them before the file.
  for (const [key, value] of Object.entries(fields)) if (value) body.append(key, value);
  body.append('file', file);
  return body;
};

export interface ReadingUpload {
  file: File;
  measurementCondition?: string;
  batch?: string;
  /** ISO 8601. */
  printedAt?: string;
  /** Columns of a spreadsheet, JSON. */
  mapping?: string;
}

/** What can be done in a session, by the end of its address, and what goes with it. */
export type SessionDeed =
  | { deed: 'read' | 'undo' | 'calibrate'; body?: undefined }
  | { deed: 'again'; body: StripPlace }
  | { deed: 'lay'; body: SheetPlace }
  | { deed: 'mend'; body: MendInput }
  | { deed: 'patches'; body: PatchPlace }
  | { deed: 'finish'; body: { takeDriftOut: boolean } };

/** Sheets by the readings they are made of. */
const sheetsKnown = new Map<string, SheetView>();

const TAGS = [
  'papers',
  'conditions',
  'pictures',
  'matches',
  'prints',
  'ledger',
  'settings',
  'table',
  'history',
  'charts',
  'sessions',
  'lights',
  'profiles',
  'eye',
  'trials',
  'packs',
  'runs',
  'editions',
  'boxes',
  'recipes',
  'events',
  'backups',
] as const;

export const api = createApi({
  baseQuery: query,
  tagTypes: TAGS,
  endpoints: (build) => ({
    papers: build.query<PaperView[], void>({ query: () => 'papers', providesTags: ['papers'] }),
    addPaper: build.mutation<PaperView, PaperInput>({
      query: (body) => ({ url: 'papers', method: 'POST', body }),
      invalidatesTags: ['papers'],
    }),
    changePaper: build.mutation<PaperView, { id: string; revision: number; paper: PaperInput }>({
      query: ({ id, revision, paper }) => ({
        url: `papers/${id}`,
        method: 'PUT',
        body: paper,
        headers: from(revision),
      }),
      invalidatesTags: ['papers', 'conditions', 'matches', 'ledger'],
    }),
    removePaper: build.mutation<void, string>({
      query: (id) => ({ url: `papers/${id}`, method: 'DELETE' }),
      invalidatesTags: ['papers'],
    }),

    conditions: build.query<ConditionHead[], void>({ query: () => 'conditions', providesTags: ['conditions'] }),
    condition: build.query<ConditionView, string>({ query: (id) => `conditions/${id}`, providesTags: ['conditions'] }),
    /** Some of them whole, in the order of the asking. */
    wholeConditions: build.query<ConditionView[], readonly string[]>({
      query: (ids) => ({ url: 'conditions/whole', params: { ids: ids.join() } }),
      providesTags: ['conditions'],
    }),
    likes: build.query<LikesView, string>({ query: (id) => `conditions/${id}/likes`, providesTags: ['conditions'] }),
    addCondition: build.mutation<ConditionView, ConditionInput>({
      query: (body) => ({ url: 'conditions', method: 'POST', body }),
      invalidatesTags: ['conditions', 'papers', 'matches'],
    }),
    changeCondition: build.mutation<ConditionView, { id: string; revision: number; condition: ConditionInput }>({
      query: ({ id, revision, condition }) => ({
        url: `conditions/${id}`,
        method: 'PUT',
        body: condition,
        headers: from(revision),
      }),
      invalidatesTags: ['conditions', 'matches', 'ledger'],
    }),
    removeCondition: build.mutation<void, string>({
      query: (id) => ({ url: `conditions/${id}`, method: 'DELETE' }),
      invalidatesTags: ['conditions', 'papers', 'table', 'matches', 'sessions'],
    }),

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
    removeReading: build.mutation<ConditionView, string>({
      query: (id) => ({ url: `readings/${id}`, method: 'DELETE' }),
      invalidatesTags: ['conditions', 'matches', 'history'],
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
    takePaper: build.mutation<PaperView, File>({
      query: (file) => ({ url: 'papers/bundle', method: 'POST', body: form(file, {}) }),
      invalidatesTags: ['papers', 'conditions', 'matches'],
    }),

    observe: build.mutation<ConditionView, { conditionId: string; observations: ObservationInput[] }>({
      query: ({ conditionId, observations }) => ({
        url: `conditions/${conditionId}/observations`,
        method: 'POST',
        body: { observations },
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

    charts: build.query<ChartView[], void>({ query: () => 'charts', providesTags: ['charts'] }),
    addChart: build.mutation<ChartView, ChartInput>({
      query: (body) => ({ url: 'charts', method: 'POST', body }),
      invalidatesTags: ['charts'],
    }),
    removeChart: build.mutation<void, string>({
      query: (id) => ({ url: `charts/${id}`, method: 'DELETE' }),
      invalidatesTags: ['charts'],
    }),

    sessions: build.query<SessionHead[], void>({ query: () => 'sessions', providesTags: ['sessions'] }),
    session: build.query<SessionView, string>({
      query: (id) => `sessions/${id}`,
      providesTags: (_, __, id) => [{ type: 'sessions', id }],
    }),
    beginSession: build.mutation<SessionView, SessionInput>({
      query: (body) => ({ url: 'sessions', method: 'POST', body }),
      invalidatesTags: ['sessions', 'charts'],
    }),
    inSession: build.mutation<SessionView, { id: string } & SessionDeed>({
      query: ({ id, deed, body }) => ({ url: `sessions/${id}/${deed}`, method: 'POST', body }),
      // The answer is the session as it now stands: no need to ask again.
      async onQueryStarted({ id }, { dispatch, queryFulfilled }) {
        const { data } = await queryFulfilled.catch(() => ({ data: undefined }));
        if (data) void dispatch(api.util.upsertQueryData('session', id, data));
      },
      invalidatesTags: (_, __, { deed }) => (deed === 'finish' ? ['conditions', 'matches', 'history', 'sessions'] : []),
    }),
    removeSession: build.mutation<void, string>({
      query: (id) => ({ url: `sessions/${id}`, method: 'DELETE' }),
      invalidatesTags: ['sessions', 'charts'],
    }),

    /** Sheets of several conditions at once; each is fetched anew only when its readings change. */
    sheets: build.query<SheetView[], { id: string; stamp: string }[]>({
      queryFn: async (asked, _api, _extra, fetch) => {
        const answers = await Promise.all(
          asked.map(async ({ id, stamp }) => {
            const known = sheetsKnown.get(stamp);
            if (known) return { data: known };
            const answer = await fetch(`conditions/${id}/sheet`);
            if (answer.data) sheetsKnown.set(stamp, answer.data as SheetView);
            return answer;
          }),
        );
        const failed = answers.find((a) => 'error' in a && a.error);
        return failed && 'error' in failed
          ? { error: failed.error as ApiError }
          : { data: answers.map((a) => a.data as SheetView) };
      },
    }),
    lights: build.query<LightView[], void>({ query: () => 'lights', providesTags: ['lights'] }),
    addLight: build.mutation<LightView, { file: File; name: string }>({
      query: ({ file, name }) => ({ url: 'lights', method: 'POST', body: form(file, { name }) }),
      invalidatesTags: ['lights'],
    }),
    removeLight: build.mutation<void, string>({
      query: (id) => ({ url: `lights/${id}`, method: 'DELETE' }),
      invalidatesTags: ['lights'],
    }),
    profiles: build.query<ProfileView[], void>({ query: () => 'profiles', providesTags: ['profiles'] }),
    addProfile: build.mutation<ProfileView, File>({
      query: (file) => ({ url: 'profiles', method: 'POST', body: form(file, {}) }),
      invalidatesTags: ['profiles'],
    }),
    removeProfile: build.mutation<void, string>({
      query: (id) => ({ url: `profiles/${id}`, method: 'DELETE' }),
      invalidatesTags: ['profiles'],
    }),
    profileSolid: build.query<SolidView, string>({ query: (id) => `profiles/${id}/solid` }),
    trials: build.query<TrialView[], void>({ query: () => 'trials', providesTags: ['trials'] }),
    stampTrial: build.mutation<TrialView, TrialInput>({
      query: (body) => ({ url: 'trials', method: 'POST', body }),
      invalidatesTags: ['trials'],
    }),
    removeTrial: build.mutation<void, string>({
      query: (id) => ({ url: `trials/${id}`, method: 'DELETE' }),
      invalidatesTags: ['trials'],
    }),
    packs: build.query<PackView[], void>({ query: () => 'packs', providesTags: ['packs', 'conditions'] }),
    planPack: build.mutation<PackView, PackInput>({
      query: (body) => ({ url: 'packs', method: 'POST', body }),
      invalidatesTags: ['packs'],
    }),
    sheetPrinted: build.mutation<PackView, { id: string } & PackDone>({
      query: ({ id, ...body }) => ({ url: `packs/${id}/sheets`, method: 'POST', body }),
      // The tick stands at once; the server's word follows.
      async onQueryStarted({ id, sheet, printed }, { dispatch, queryFulfilled }) {
        const ticked = dispatch(
          api.util.updateQueryData('packs', undefined, (packs) => {
            const pack = packs.find((p) => p.id === id);
            if (pack) pack.printed = printed ? [...pack.printed, sheet] : pack.printed.filter((s) => s !== sheet);
          }),
        );
        await queryFulfilled.catch(() => ticked.undo());
      },
    }),
    removePack: build.mutation<void, string>({
      query: (id) => ({ url: `packs/${id}`, method: 'DELETE' }),
      invalidatesTags: ['packs'],
    }),
    eyes: build.query<EyeView[], void>({ query: () => 'eye', providesTags: ['eye'] }),
    beginEye: build.mutation<EyeView, EyeInput>({
      query: (body) => ({ url: 'eye', method: 'POST', body }),
      invalidatesTags: ['eye'],
    }),
    eyeLabels: build.query<EyeLabels, string>({ query: (id) => `eye/${id}/labels` }),
    eyeSays: build.mutation<EyeView, { id: string } & EyeChoice>({
      query: ({ id, ...body }) => ({ url: `eye/${id}/choices`, method: 'POST', body }),
      invalidatesTags: ['eye'],
    }),
    eyeUndo: build.mutation<EyeView, string>({
      query: (id) => ({ url: `eye/${id}/choices/last`, method: 'DELETE' }),
      invalidatesTags: ['eye'],
    }),
    removeEye: build.mutation<void, string>({
      query: (id) => ({ url: `eye/${id}`, method: 'DELETE' }),
      invalidatesTags: ['eye'],
    }),

    pictures: build.query<PictureView[], void>({ query: () => 'pictures', providesTags: ['pictures'] }),
    addPicture: build.mutation<PictureJob, { file: File; assumeSrgb?: 'yes' }>({
      query: ({ file, ...fields }) => ({ url: 'pictures', method: 'POST', body: form(file, fields) }),
    }),
    pictureJob: build.query<PictureJob, string>({ query: (id) => `pictures/jobs/${id}` }),
    cancelPictureJob: build.mutation<PictureJob, string>({
      query: (id) => ({ url: `pictures/jobs/${id}`, method: 'DELETE' }),
    }),
    removePicture: build.mutation<void, string>({
      query: (id) => ({ url: `pictures/${id}`, method: 'DELETE' }),
      invalidatesTags: ['pictures', 'table'],
    }),

    match: build.query<MatchView, MatchRequest>({
      query: (body) => ({ url: 'matches', method: 'POST', body }),
      providesTags: ['matches'],
    }),
    decisions: build.query<DecisionView[], void>({ query: () => 'decisions', providesTags: ['matches'] }),
    decide: build.mutation<DecisionView, DecisionInput>({
      query: (body) => ({ url: 'decisions', method: 'POST', body }),
      invalidatesTags: ['matches', 'ledger'],
    }),
    takeBack: build.mutation<void, string>({
      query: (id) => ({ url: `decisions/${id}`, method: 'DELETE' }),
      invalidatesTags: ['matches', 'ledger'],
    }),

    settings: build.query<Settings, void>({ query: () => 'settings', providesTags: ['settings'] }),
    changeSettings: build.mutation<Settings, Settings>({
      query: (body) => ({ url: 'settings', method: 'PUT', body, headers: from(body.revision ?? 1) }),
      // The first separate greys follow the threshold.
      invalidatesTags: ['settings', 'conditions', 'history'],
    }),

    table: build.query<TableState, void>({ query: () => 'table', providesTags: ['table'] }),
    atTable: build.mutation<TableState, TableDeedInput>({
      query: (body) => ({ url: 'table/deeds', method: 'POST', body }),
      // The hand moves first; the server's word follows.
      async onQueryStarted(deed, { dispatch, queryFulfilled }) {
        const moved = dispatch(
          api.util.updateQueryData('table', undefined, (table) => ({
            ...table,
            ...(afterDeed(table, deed) as TableState),
          })),
        );
        try {
          const { data } = await queryFulfilled;
          dispatch(api.util.updateQueryData('table', undefined, () => data));
        } catch {
          moved.undo();
        }
      },
    }),

    events: build.query<EventView[], string | undefined>({
      query: (about) => ({ url: 'events', params: about ? { about } : {} }),
      providesTags: ['events'],
    }),
    bin: build.query<BinEntry[], void>({ query: () => 'bin', providesTags: ['events'] }),
    backups: build.query<BackupView[], void>({ query: () => 'backups', providesTags: ['backups'] }),
    makeBackup: build.mutation<BackupView, void>({
      query: () => ({ url: 'backups', method: 'POST' }),
      invalidatesTags: ['backups'],
    }),
    restoreBackup: build.mutation<void, File>({
      query: (file) => ({ url: 'backups/restore', method: 'POST', body: form(file, {}) }),
    }),
    undoDeed: build.mutation<void, string>({
      query: (change) => ({ url: `events/${change}/undo`, method: 'POST' }),
      invalidatesTags: TAGS,
    }),
  }),
});

export const {
  usePapersQuery,
  useAddPaperMutation,
  useChangePaperMutation,
  useRemovePaperMutation,
  useConditionQuery,
  useConditionsQuery,
  useLikesQuery,
  useWholeConditionsQuery,
  useAddConditionMutation,
  useChangeConditionMutation,
  useRemoveConditionMutation,
  usePreviewReadingMutation,
  useKeepReadingMutation,
  useRemoveReadingMutation,
  useHistoryQuery,
  useTakeFiguresFromMutation,
  useTakePaperMutation,
  useObserveMutation,
  useForgetObservationMutation,
  useKeepScanMutation,
  useSimulateScanMutation,
  useReadBenchMutation,
  useChartsQuery,
  useAddChartMutation,
  useRemoveChartMutation,
  useSessionsQuery,
  useSessionQuery,
  useBeginSessionMutation,
  useInSessionMutation,
  useRemoveSessionMutation,
  useSheetsQuery,
  useLightsQuery,
  useAddLightMutation,
  useRemoveLightMutation,
  useProfilesQuery,
  useAddProfileMutation,
  useRemoveProfileMutation,
  useProfileSolidQuery,
  useTrialsQuery,
  useStampTrialMutation,
  useRemoveTrialMutation,
  usePacksQuery,
  usePlanPackMutation,
  useSheetPrintedMutation,
  useRemovePackMutation,
  useEyesQuery,
  useBeginEyeMutation,
  useEyeLabelsQuery,
  useEyeSaysMutation,
  useEyeUndoMutation,
  useRemoveEyeMutation,
  usePicturesQuery,
  useAddPictureMutation,
  usePictureJobQuery,
  useCancelPictureJobMutation,
  useRemovePictureMutation,
  useMatchQuery,
  useDecisionsQuery,
  useDecideMutation,
  useTakeBackMutation,
  useSettingsQuery,
  useChangeSettingsMutation,
  useTableQuery,
  useAtTableMutation,
  useEventsQuery,
  useBinQuery,
  useUndoDeedMutation,
  useBackupsQuery,
  useMakeBackupMutation,
  useRestoreBackupMutation,
} = api;
