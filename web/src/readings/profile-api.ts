import type { ChartView } from '@rakuen/contract/charts';
import type {
  CheckList,
  CheckView,
  ModelView,
  ProfileJob,
  ProfileSettingsInput,
  ProfileView,
} from '@rakuen/contract/profiles';
import { api, form } from '../api/api.ts';

/** Models of print conditions, and the profiles that follow from them. */
export const profileApi = api.injectEndpoints({
  endpoints: (build) => ({
    model: build.query<ModelView, { id: string; work: string }>({
      query: ({ id, work }) => ({ url: `conditions/${id}/model`, params: { work } }),
      providesTags: ['history'],
    }),
    makeProfile: build.mutation<ProfileJob, { conditionId: string; settings: ProfileSettingsInput }>({
      query: ({ conditionId, settings }) => ({
        url: `conditions/${conditionId}/profiles`,
        method: 'POST',
        body: settings,
      }),
    }),
    profileJob: build.query<ProfileJob, string>({ query: (id) => `profile-jobs/${id}` }),
    stopProfileJob: build.mutation<ProfileJob, string>({
      query: (id) => ({ url: `profile-jobs/${id}/cancel`, method: 'POST' }),
    }),
    chooseProfile: build.mutation<ProfileView[], { conditionId: string; profileId?: string }>({
      query: ({ conditionId, profileId }) => ({
        url: `conditions/${conditionId}/profile`,
        method: 'PUT',
        body: { profileId },
      }),
      invalidatesTags: ['profiles', 'conditions'],
    }),
    layOutStrip: build.mutation<ChartView, string>({
      query: (id) => ({ url: `profiles/${id}/strip`, method: 'POST' }),
      invalidatesTags: ['charts'],
    }),
    layOutNext: build.mutation<ChartView, { conditionId: string; count: number }>({
      query: ({ conditionId, count }) => ({
        url: `conditions/${conditionId}/next-patches`,
        method: 'POST',
        body: { count },
      }),
      invalidatesTags: ['charts'],
    }),
    profileChecks: build.query<CheckList, string>({
      query: (id) => `profiles/${id}/checks`,
      providesTags: ['profiles'],
    }),
    checkReading: build.mutation<CheckView, { profileId: string; readingId: string }>({
      query: ({ profileId, readingId }) => ({
        url: `profiles/${profileId}/checks`,
        method: 'POST',
        body: { readingId },
      }),
      invalidatesTags: ['profiles'],
    }),
    checkFile: build.mutation<CheckView, { profileId: string; conditionId: string; file: File }>({
      query: ({ profileId, conditionId, file }) => ({
        url: `profiles/${profileId}/check-files`,
        method: 'POST',
        body: form(file, { conditionId }),
      }),
      invalidatesTags: ['profiles'],
    }),
  }),
});

export const {
  useModelQuery,
  useMakeProfileMutation,
  useProfileJobQuery,
  useStopProfileJobMutation,
  useChooseProfileMutation,
  useLayOutStripMutation,
  useLayOutNextMutation,
  useProfileChecksQuery,
  useCheckReadingMutation,
  useCheckFileMutation,
} = profileApi;
