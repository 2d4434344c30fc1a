import type { ChartInput, ChartView } from '@rakuen/contract/charts';
import type {
  MendInput,
  PatchPlace,
  SessionHead,
  SessionInput,
  SessionView,
  SheetPlace,
  StripPlace,
} from '@rakuen/contract/sessions';
import { api } from '../api/api.ts';

/** What can be done in a session, by the end of its address, and what goes with it. */
export type SessionDeed =
  | { deed: 'read' | 'undo' | 'calibrate'; body?: undefined }
  | { deed: 'again'; body: StripPlace }
  | { deed: 'lay'; body: SheetPlace }
  | { deed: 'mend'; body: MendInput }
  | { deed: 'patches'; body: PatchPlace }
  | { deed: 'finish'; body: { takeDriftOut: boolean } };

/** Charts, and the sessions in which they are read. */
const sessionApi = api.injectEndpoints({
  endpoints: (build) => ({
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
        if (data) void dispatch(sessionApi.util.upsertQueryData('session', id, data));
      },
      invalidatesTags: (_, __, { deed }) => (deed === 'finish' ? ['conditions', 'matches', 'history', 'sessions'] : []),
    }),
    removeSession: build.mutation<void, string>({
      query: (id) => ({ url: `sessions/${id}`, method: 'DELETE' }),
      invalidatesTags: ['sessions', 'charts'],
    }),
  }),
});

export const {
  useChartsQuery,
  useAddChartMutation,
  useRemoveChartMutation,
  useSessionsQuery,
  useSessionQuery,
  useBeginSessionMutation,
  useInSessionMutation,
  useRemoveSessionMutation,
} = sessionApi;
