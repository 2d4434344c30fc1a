import type { BackupView } from '@rakuen/contract/backups';
import type { BinEntry, EventView } from '@rakuen/contract/events';
import { api, form, TAGS } from '../api/api.ts';

/** What happened, what lies in the bin, and what was kept aside. */
export const {
  useEventsQuery,
  useBinQuery,
  useBackupsQuery,
  useMakeBackupMutation,
  useRestoreBackupMutation,
  useUndoDeedMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    events: build.query<EventView[], string | undefined>({
      query: (about) => ({ url: 'events', params: about ? { about } : {} }),
      providesTags: ['events'],
    }),
    bin: build.query<BinEntry[], void>({ query: () => 'bin', providesTags: ['events'] }),
    backups: build.query<BackupView[], void>({ query: () => 'backups', providesTags: ['backups'] }),
    makeBackup: build.mutation<BackupView, void>({
      query: () => ({ url: 'backups', method: 'POST' }),
      invalidatesTags: ['backups'],
    }),
    restoreBackup: build.mutation<void, File>({
      query: (file) => ({ url: 'backups/restore', method: 'POST', body: form(file, {}) }),
    }),
    undoDeed: build.mutation<void, string>({
      query: (change) => ({ url: `events/${change}/undo`, method: 'POST' }),
      invalidatesTags: TAGS,
    }),
  }),
});
