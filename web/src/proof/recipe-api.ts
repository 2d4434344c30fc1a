import type { RecipeInput, RecipeView, SuggestView } from '@rakuen/contract/recipes';
import type { StripsView } from '@rakuen/contract/strips';
import { api } from '../api/api.ts';

/** Recipes of print copies, and what is suggested for them. */
export const recipeApi = api.injectEndpoints({
  endpoints: (build) => ({
    recipes: build.query<RecipeView[], string>({
      query: (pictureId) => ({ url: 'recipes', params: { pictureId } }),
      providesTags: ['recipes'],
    }),
    writeRecipe: build.mutation<RecipeView, RecipeInput>({
      query: (body) => ({ url: 'recipes', method: 'PUT', body }),
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
    suggested: build.query<SuggestView, { pictureId: string; conditionId: string }>({
      query: ({ pictureId, conditionId }) => ({ url: `pictures/${pictureId}/suggested`, params: { conditionId } }),
      providesTags: ['pictures', 'conditions'],
    }),
  }),
});

export const { useRecipesQuery, useWriteRecipeMutation, useRemoveRecipeMutation, useSuggestedQuery, useStripsQuery } =
  recipeApi;
