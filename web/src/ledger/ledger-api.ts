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

const NOTHING: LedgerView = {
  entries: [],
  total: 0,
  answer: { decisions: 0, prints: 0, copies: 0, pictures: 0, papers: 0, spoilt: 0 },
};

export const ledgerApi = api.injectEndpoints({
  endpoints: (build) => ({
    /** So many pages of the ledger, the newest first. */
    ledger: build.query<LedgerView, Asked & { pages: number }>({
      async queryFn({ pages, ...params }, _api, _extra, fetch) {
        let view = NOTHING;
        for (let page = 0; page < pages; page++) {
          const { data, error } = await fetch({ url: 'ledger', params: { ...params, from: view.entries.length } });
          if (error) return { error };
          const next = data as LedgerView;
          view = { ...next, entries: [...view.entries, ...next.entries] };
        }
        return { data: view };
      },
      providesTags: ['ledger'],
    }),
    writeNote: build.mutation<NoteView, NoteInput>({
      query: (body) => ({ url: 'notes', method: 'POST', body }),
      invalidatesTags: ['ledger'],
    }),
    removeNote: build.mutation<void, string>({
      query: (id) => ({ url: `notes/${id}`, method: 'DELETE' }),
      invalidatesTags: ['ledger'],
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
  useLedgerQuery,
  useWriteNoteMutation,
  useRemoveNoteMutation,
  useReadLedgerMutation,
  usePaperLifeQuery,
  usePictureLifeQuery,
} = ledgerApi;
