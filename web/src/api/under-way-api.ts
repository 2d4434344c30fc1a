import type { UnderWayView } from '@rakuen/contract/under-way';
import { api } from './api.ts';

/** What takes long: how far it is, and leaving it. */
export const { useFarQuery, useLeaveMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    far: build.query<UnderWayView, string>({ query: (work) => `under-way/${work}` }),
    leave: build.mutation<void, string>({ query: (work) => ({ url: `under-way/${work}`, method: 'DELETE' }) }),
  }),
});
