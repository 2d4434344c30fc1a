import type {
  ClientInput,
  ClientView,
  MoveInput,
  MovesQuery,
  MoveView,
  OrderInput,
  OrderView,
  PlaceInput,
  PlaceView,
} from '@rakuen/contract/clients';
import { api, from } from '../api/api.ts';

interface Changed<T> {
  readonly id: string;
  readonly revision: number;
  readonly input: T;
}
const put = <T>(path: string, { id, revision, input }: Changed<T>) => ({
  url: `${path}/${id}`,
  method: 'PUT',
  body: input,
  headers: from(revision),
});
const WHAT_MOVES = ['moves', 'clients', 'editions', 'prints', 'ledger', 'events'] as const;
const WHAT_ORDERS = ['orders', 'clients', 'prints', 'moves', 'ledger', 'events'] as const;

/** Clients, their places, their orders, and where every print is. */
export const clientApi = api.injectEndpoints({
  endpoints: (build) => ({
    clients: build.query<ClientView[], void>({ query: () => 'clients', providesTags: ['clients'] }),
    addClient: build.mutation<ClientView, ClientInput>({
      query: (body) => ({ url: 'clients', method: 'POST', body }),
      invalidatesTags: ['clients', 'events'],
    }),
    changeClient: build.mutation<ClientView, Changed<ClientInput>>({
      query: (changed) => put('clients', changed),
      invalidatesTags: ['clients', 'orders', 'moves', 'editions', 'prints', 'ledger', 'events'],
    }),
    removeClient: build.mutation<void, string>({
      query: (id) => ({ url: `clients/${id}`, method: 'DELETE' }),
      invalidatesTags: ['clients', 'events'],
    }),
    places: build.query<PlaceView[], void>({ query: () => 'places', providesTags: ['clients'] }),
    addPlace: build.mutation<PlaceView, PlaceInput>({
      query: (body) => ({ url: 'places', method: 'POST', body }),
      invalidatesTags: ['clients', 'events'],
    }),
    changePlace: build.mutation<PlaceView, Changed<PlaceInput>>({
      query: (changed) => put('places', changed),
      invalidatesTags: ['clients', 'moves', 'editions', 'prints', 'ledger', 'events'],
    }),
    removePlace: build.mutation<void, string>({
      query: (id) => ({ url: `places/${id}`, method: 'DELETE' }),
      invalidatesTags: ['clients', 'events'],
    }),
    orders: build.query<OrderView[], void>({ query: () => 'orders', providesTags: ['orders', 'prints', 'pictures'] }),
    addOrder: build.mutation<OrderView, OrderInput>({
      query: (body) => ({ url: 'orders', method: 'POST', body }),
      invalidatesTags: WHAT_ORDERS,
    }),
    changeOrder: build.mutation<OrderView, Changed<OrderInput>>({
      query: (changed) => put('orders', changed),
      invalidatesTags: WHAT_ORDERS,
    }),
    removeOrder: build.mutation<void, string>({
      query: (id) => ({ url: `orders/${id}`, method: 'DELETE' }),
      invalidatesTags: WHAT_ORDERS,
    }),
    /** Delivered, cancelled, or open again. */
    stepOrder: build.mutation<OrderView, { id: string; step: 'deliver' | 'cancel' | 'reopen'; on?: string }>({
      query: ({ id, step, on }) => ({ url: `orders/${id}/${step}`, method: 'POST', body: on ? { on } : {} }),
      invalidatesTags: [...WHAT_ORDERS, 'editions'],
    }),
    moves: build.query<MoveView[], MovesQuery>({
      query: (params) => ({ url: 'moves', params }),
      providesTags: ['moves'],
    }),
    addMove: build.mutation<MoveView, MoveInput>({
      query: (body) => ({ url: 'moves', method: 'POST', body }),
      invalidatesTags: WHAT_MOVES,
    }),
    removeMove: build.mutation<void, string>({
      query: (id) => ({ url: `moves/${id}`, method: 'DELETE' }),
      invalidatesTags: WHAT_MOVES,
    }),
  }),
});

export const {
  useClientsQuery,
  useAddClientMutation,
  useChangeClientMutation,
  useRemoveClientMutation,
  usePlacesQuery,
  useAddPlaceMutation,
  useChangePlaceMutation,
  useRemovePlaceMutation,
  useOrdersQuery,
  useAddOrderMutation,
  useChangeOrderMutation,
  useRemoveOrderMutation,
  useStepOrderMutation,
  useMovesQuery,
  useAddMoveMutation,
  useRemoveMoveMutation,
} = clientApi;
