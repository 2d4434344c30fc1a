import type { PackDone, PackInput, PackLook, PackLookInput, PackView } from '@rakuen/contract/packs';
import type { EyeChoice, EyeInput, EyeLabels, EyeView } from '@rakuen/contract/eye';
import type { TrialInput, TrialView } from '@rakuen/contract/trials';
import { api } from '../api/api.ts';

/** Judged by eye: trials of media settings, blind comparisons, sample packs. */
const judgingApi = api.injectEndpoints({
  endpoints: (build) => ({
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
    packLook: build.query<PackLook, PackLookInput>({
      query: (body) => ({ url: 'packs/look', method: 'POST', body }),
      providesTags: ['charts', 'pictures'],
    }),
    planPack: build.mutation<PackView, PackInput>({
      query: (body) => ({ url: 'packs', method: 'POST', body }),
      invalidatesTags: ['packs'],
    }),
    sheetPrinted: build.mutation<PackView, { id: string } & PackDone>({
      query: ({ id, ...body }) => ({ url: `packs/${id}/sheets`, method: 'POST', body }),
      // The tick stands at once; the server's word follows.
      async onQueryStarted({ id, sheet, printed }, { dispatch, queryFulfilled }) {
        const ticked = dispatch(
          judgingApi.util.updateQueryData('packs', undefined, (packs) => {
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
  }),
});

export const {
  useTrialsQuery,
  useStampTrialMutation,
  useRemoveTrialMutation,
  usePacksQuery,
  usePackLookQuery,
  usePlanPackMutation,
  useSheetPrintedMutation,
  useRemovePackMutation,
  useEyesQuery,
  useBeginEyeMutation,
  useEyeLabelsQuery,
  useEyeSaysMutation,
  useEyeUndoMutation,
  useRemoveEyeMutation,
} = judgingApi;
