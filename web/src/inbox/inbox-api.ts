import type { InboxFile, InboxImport, InboxView } from '@rakuen/contract/inbox';
import { api, form } from '../api/api.ts';

/** A file that is picked or dropped, with its folders where it came in one. */
export interface Brought {
  readonly file: File;
  readonly path: string;
}

const CHANGED = ['inbox', 'papers', 'conditions', 'matches', 'history', 'pictures', 'profiles', 'lights'] as const;

/** Files that came in and wait. */
export const inboxApi = api.injectEndpoints({
  endpoints: (build) => ({
    inbox: build.query<InboxView, void>({ query: () => 'inbox', providesTags: ['inbox', 'conditions', 'papers'] }),
    bringFile: build.mutation<InboxFile, Brought>({
      query: ({ file, path }) => ({ url: 'inbox', method: 'POST', body: form(file, { path }) }),
      invalidatesTags: ['inbox'],
    }),
    importFile: build.mutation<InboxFile, { id: string } & InboxImport>({
      query: ({ id, ...body }) => ({ url: `inbox/${id}/import`, method: 'POST', body }),
      invalidatesTags: [...CHANGED],
    }),
    importCertain: build.mutation<InboxView, void>({
      query: () => ({ url: 'inbox/certain', method: 'POST' }),
      invalidatesTags: [...CHANGED],
    }),
    putFileAway: build.mutation<void, string>({
      query: (id) => ({ url: `inbox/${id}`, method: 'DELETE' }),
      invalidatesTags: ['inbox'],
    }),
    clearInbox: build.mutation<InboxView, void>({
      query: () => ({ url: 'inbox/clear', method: 'POST' }),
      invalidatesTags: ['inbox'],
    }),
  }),
});

export const {
  useInboxQuery,
  useBringFileMutation,
  useImportFileMutation,
  useImportCertainMutation,
  usePutFileAwayMutation,
  useClearInboxMutation,
} = inboxApi;
