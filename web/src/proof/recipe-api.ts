import type { RecipeInput, RecipeView, SuggestView } from '@rakuen/contract/recipes';
import type { ChartView } from '@rakuen/contract/charts';
import type { CardView, ScanView, StripsView } from '@rakuen/contract/strips';
import { api, form, from } from '../api/api.ts';

/** Recipes of print copies, and what is suggested for them. */
export const recipeApi = api.injectEndpoints({
  endpoints: (build) => ({
    recipes: build.query<RecipeView[], string>({
      query: (pictureId) => ({ url: 'recipes', params: { pictureId } }),
      providesTags: ['recipes'],
    }),
    /** @param from revision it was turned from; 0 where none was kept yet, nothing where whatever stands is written over */
    writeRecipe: build.mutation<RecipeView, { recipe: RecipeInput; from?: number }>({
      query: ({ recipe, from: revision }) => ({
        url: 'recipes',
        method: 'PUT',
        body: recipe,
        headers: revision === undefined ? {} : from(revision),
      }),
      invalidatesTags: ['recipes'],
    }),
    removeRecipe: build.mutation<void, string>({
      query: (id) => ({ url: `recipes/${id}`, method: 'DELETE' }),
      invalidatesTags: ['recipes'],
    }),
    strips: build.query<StripsView, { pictureId: string } & Record<string, string>>({
      query: ({ pictureId, ...params }) => ({ url: `pictures/${pictureId}/strips`, params }),
      providesTags: ['pictures', 'conditions', 'recipes'],
    }),
    card: build.query<CardView, string>({
      query: (pictureId) => `pictures/${pictureId}/strips/card`,
      providesTags: ['charts', 'conditions', 'sessions'],
    }),
    layOutCard: build.mutation<ChartView, void>({
      query: () => ({ url: 'charts/card', method: 'POST' }),
      invalidatesTags: ['charts'],
    }),
    holdScan: build.mutation<ScanView, { pictureId: string; file: File; fields: Record<string, string> }>({
      query: ({ pictureId, file, fields }) => ({
        url: `pictures/${pictureId}/strips/scan`,
        method: 'POST',
        body: form(file, fields),
      }),
    }),
    suggested: build.query<SuggestView, { pictureId: string; conditionId: string }>({
      query: ({ pictureId, conditionId }) => ({ url: `pictures/${pictureId}/suggested`, params: { conditionId } }),
      providesTags: ['pictures', 'conditions'],
    }),
  }),
});

export const {
  useRecipesQuery,
  useWriteRecipeMutation,
  useRemoveRecipeMutation,
  useSuggestedQuery,
  useStripsQuery,
  useCardQuery,
  useLayOutCardMutation,
  useHoldScanMutation,
} = recipeApi;
