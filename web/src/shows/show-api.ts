import type { ShowHead, ShowInput, ShowPlanRequest, ShowPlanView, ShowView } from '@rakuen/contract/shows';
import { api } from '../api/api.ts';

/** Shows, and which papers carry them. */
export const showApi = api.injectEndpoints({
  endpoints: (build) => ({
    shows: build.query<ShowHead[], void>({ query: () => 'shows', providesTags: ['shows', 'pictures', 'papers'] }),
    show: build.query<ShowView, string>({
      query: (id) => `shows/${id}`,
      providesTags: ['shows', 'pictures', 'papers', 'lights'],
    }),
    addShow: build.mutation<ShowView, ShowInput>({
      query: (body) => ({ url: 'shows', method: 'POST', body }),
      invalidatesTags: ['shows', 'events'],
    }),
    changeShow: build.mutation<ShowView, { id: string; revision: number; show: ShowInput }>({
      query: ({ id, revision, show }) => ({
        url: `shows/${id}`,
        method: 'PUT',
        body: show,
        headers: { 'If-Match': `"${revision}"` },
      }),
      invalidatesTags: ['shows', 'events'],
    }),
    removeShow: build.mutation<void, string>({
      query: (id) => ({ url: `shows/${id}`, method: 'DELETE' }),
      invalidatesTags: ['shows', 'events'],
    }),
    /** @param revision of the show: another one, another plan */
    showPlan: build.query<ShowPlanView, ShowPlanRequest & { id: string; revision: number }>({
      query: ({ id, revision: _, ...body }) => ({ url: `shows/${id}/plan`, method: 'POST', body }),
      providesTags: ['matches'],
    }),
  }),
});

export const {
  useShowsQuery,
  useShowQuery,
  useAddShowMutation,
  useChangeShowMutation,
  useRemoveShowMutation,
  useShowPlanQuery,
} = showApi;
