import type { KeepMatch, KeptMatch, LearnedEyeView, SchoolInput, SchoolView } from '@rakuen/contract/matches';
import { api } from '../api/api.ts';

/** Matches that are kept, schools of one's own. */
export const matchApi = api.injectEndpoints({
  endpoints: (build) => ({
    keptMatches: build.query<KeptMatch[], string>({
      query: (pictureId) => `pictures/${pictureId}/matches`,
      providesTags: ['ledger'],
    }),
    keepMatch: build.mutation<KeptMatch, KeepMatch>({
      query: (body) => ({ url: 'matches/kept', method: 'POST', body }),
      invalidatesTags: ['ledger'],
    }),
    forgetMatch: build.mutation<void, string>({
      query: (id) => ({ url: `matches/kept/${id}`, method: 'DELETE' }),
      invalidatesTags: ['ledger'],
    }),
    learnedEye: build.query<LearnedEyeView, void>({
      query: () => 'matches/learned',
      providesTags: ['ledger', 'matches', 'settings'],
    }),
    schools: build.query<SchoolView[], void>({ query: () => 'schools', providesTags: ['settings'] }),
    foundSchool: build.mutation<SchoolView, SchoolInput>({
      query: (body) => ({ url: 'schools', method: 'POST', body }),
      invalidatesTags: ['settings'],
    }),
    dissolveSchool: build.mutation<void, string>({
      query: (id) => ({ url: `schools/${id}`, method: 'DELETE' }),
      invalidatesTags: ['settings'],
    }),
  }),
});

export const {
  useKeptMatchesQuery,
  useKeepMatchMutation,
  useForgetMatchMutation,
  useLearnedEyeQuery,
  useSchoolsQuery,
  useFoundSchoolMutation,
  useDissolveSchoolMutation,
} = matchApi;
