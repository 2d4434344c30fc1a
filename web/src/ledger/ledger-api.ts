import type { LedgerReadView, LedgerView, PaperLife, PictureLife } from '@rakuen/contract/ledger';
import type { NoteInput, NoteView } from '@rakuen/contract/notes';
import { api, form } from '../api/api.ts';

/** What is asked of the ledger; every part may be left out. */
export interface Asked {
  readonly q?: string;
  readonly kind?: string;
  readonly pictureId?: string;
  readonly paperId?: string;
  readonly since?: string;
  readonly until?: string;
}

export const ledgerApi = api.injectEndpoints({
  endpoints: (build) => ({
    /** The ledger, a page at a time, the newest first. */
    ledger: build.infiniteQuery<LedgerView, Asked, number>({
      infiniteQueryOptions: {
        initialPageParam: 0,
        getNextPageParam: ({ total }, pages) => {
          const shown = pages.reduce((sum, p) => sum + p.entries.length, 0);
          return shown < total ? shown : undefined;
        },
      },
      query: ({ queryArg, pageParam }) => ({ url: 'ledger', params: { ...queryArg, from: pageParam } }),
      providesTags: ['ledger'],
    }),
    writeNote: build.mutation<NoteView, NoteInput>({
      query: (body) => ({ url: 'notes', method: 'POST', body }),
      invalidatesTags: ['ledger', 'matches'],
    }),
    removeNote: build.mutation<void, string>({
      query: (id) => ({ url: `notes/${id}`, method: 'DELETE' }),
      invalidatesTags: ['ledger', 'matches'],
    }),
    readLedger: build.mutation<LedgerReadView, File>({
      query: (file) => ({ url: 'ledger/read', method: 'POST', body: form(file, {}) }),
      invalidatesTags: ['ledger', 'prints', 'boxes', 'pictures'],
    }),
    paperLife: build.query<PaperLife, string>({
      query: (id) => `ledger/papers/${id}`,
      providesTags: ['ledger', 'prints', 'boxes'],
    }),
    pictureLife: build.query<PictureLife, string>({
      query: (id) => `ledger/pictures/${id}`,
      providesTags: ['ledger', 'prints', 'editions'],
    }),
  }),
});

export const {
  useLedgerInfiniteQuery,
  useWriteNoteMutation,
  useRemoveNoteMutation,
  useReadLedgerMutation,
  usePaperLifeQuery,
  usePictureLifeQuery,
} = ledgerApi;
