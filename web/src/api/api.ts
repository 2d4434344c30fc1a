import { nanoid } from '@reduxjs/toolkit';
import {
  createApi,
  fetchBaseQuery,
  type BaseQueryApi,
  type BaseQueryFn,
  type FetchArgs,
  type FetchBaseQueryError,
} from '@reduxjs/toolkit/query/react';
import type { ConditionHead, ConditionInput, ConditionView, LikesView } from '@rakuen/contract/conditions';
import type { DecisionInput, DecisionView, MatchRequest, MatchView } from '@rakuen/contract/matches';
import type { PaperInput, PaperView } from '@rakuen/contract/papers';
import type { PictureJob, PictureView } from '@rakuen/contract/pictures';
import type { ProfileView, SolidView } from '@rakuen/contract/profiles';
import type { LightView, SheetView } from '@rakuen/contract/sheets';
import type { LampUv } from '@rakuen/core/light/own-lamp';
import type { ApiError, Settings, TableDeedInput, TableState } from '@rakuen/contract/settings';
import { afterDeed } from '@rakuen/core/table/table';

const plain = fetchBaseQuery({ baseUrl: '/api/' });

/** What is under way, by what it asks for: a double click is one deed. */
const underWay = new Map<string, ReturnType<typeof plain>>();
const SECOND_TRY_MS = 400;

/**
 * Whatever makes something carries a key of its own. It is asked again once where no answer came, under the same key:
 * what was done before the line broke is not done twice.
 */
async function keyed(args: FetchArgs, api: BaseQueryApi, extra: object) {
  const headers = { ...(args.headers as Record<string, string> | undefined), 'Idempotency-Key': nanoid() };
  const first = await plain({ ...args, headers }, api, extra);
  if (first.error?.status !== 'FETCH_ERROR' || api.signal.aborted) return first;
  await new Promise((go) => setTimeout(go, SECOND_TRY_MS));
  return plain({ ...args, headers }, api, extra);
}

/** Of an endpoint: each time it is asked is a deed of its own, however alike they are. Two steps on are two steps. */
interface Counted {
  readonly eachCounts?: boolean;
}

function asked(args: string | FetchArgs, api: BaseQueryApi, extra: Counted) {
  // A question that is asked by POST makes nothing, and may be called off by whoever asked.
  if (typeof args === 'string' || args.method !== 'POST' || args.body instanceof FormData || api.type !== 'mutation')
    return plain(args, api, extra);
  if (extra?.eachCounts) return keyed(args, api, extra);
  const deed = JSON.stringify([args.url, args.body]);
  const same = underWay.get(deed);
  if (same) return same;
  const answer = Promise.resolve(keyed(args, api, extra)).finally(() => underWay.delete(deed));
  underWay.set(deed, answer);
  return answer;
}

/** Errors reach the screens as the server words them; a server that can't be reached is worded here. */
const query: BaseQueryFn<string | FetchArgs, unknown, ApiError, Counted> = async (args, api, extra) => {
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

/** Deeds at the table so far. */
let tableTurns = 0;

/** Sheets by the readings they are made of. */
const sheetsKnown = new Map<string, SheetView>();

export const TAGS = [
  'inbox',
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
  'clients',
  'orders',
  'moves',
  'recipes',
  'shows',
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

    takePaper: build.mutation<PaperView, File>({
      query: (file) => ({ url: 'papers/bundle', method: 'POST', body: form(file, {}) }),
      invalidatesTags: ['papers', 'conditions', 'matches'],
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
    setLightUv: build.mutation<LightView, { id: string; uv: LampUv }>({
      query: ({ id, uv }) => ({ url: `lights/${id}`, method: 'PATCH', body: { uv } }),
      invalidatesTags: ['lights', 'matches'],
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
      providesTags: (_, __, { recipeIds }) => (recipeIds?.length ? ['matches', 'recipes'] : ['matches']),
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
      extraOptions: { eachCounts: true },
      // The hand moves first; the server's word follows once the hand rests.
      async onQueryStarted(deed, { dispatch, queryFulfilled }) {
        const turn = ++tableTurns;
        const moved = dispatch(
          api.util.updateQueryData('table', undefined, (table) => ({
            ...table,
            ...(afterDeed(table, deed) as TableState),
          })),
        );
        try {
          const { data } = await queryFulfilled;
          if (turn === tableTurns) dispatch(api.util.updateQueryData('table', undefined, () => data));
        } catch {
          moved.undo();
        }
      },
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
  useTakePaperMutation,
  useSheetsQuery,
  useLightsQuery,
  useAddLightMutation,
  useRemoveLightMutation,
  useSetLightUvMutation,
  useProfilesQuery,
  useAddProfileMutation,
  useRemoveProfileMutation,
  useProfileSolidQuery,
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
} = api;
