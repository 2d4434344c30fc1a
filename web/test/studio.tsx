import { configureStore } from '@reduxjs/toolkit';
import { act, useState, type ReactNode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { api } from '../src/api/api.ts';

/** A request as it reached the server. */
export interface Asked {
  readonly method: string;
  /** Below `/api/`, with its query. */
  readonly path: string;
  readonly headers: Headers;
  readonly body: unknown;
}

/** What a server answers: a body, or a status with one; a thrown error is a line that broke. */
export type Answers = (asked: Asked) => unknown;

const PLACE = 'http://studio.test';

/** A refusal as the server words it. */
export const refused = (status: number, body: object) => Response.json({ statusCode: status, ...body }, { status });

/** Lets a server of the test answer what is asked; what was asked is told. */
export function serve(answers: Answers): Asked[] {
  const asked: Asked[] = [];
  const Plain = Request;
  class Placed extends Plain {
    constructor(input: RequestInfo | URL, init?: RequestInit) {
      super(typeof input === 'string' ? new URL(input, PLACE) : input, init);
    }
  }
  Object.assign(globalThis, {
    Request: Placed,
    fetch: async (input: Request | string) => {
      const request = input instanceof Plain ? input : new Placed(input);
      const text = await request.clone().text();
      const { pathname, search } = new URL(request.url);
      const one: Asked = {
        method: request.method,
        path: `${pathname}${search}`.replace(/^\/api\//, ''),
        headers: request.headers,
        body: request.headers.get('content-type')?.includes('json') ? JSON.parse(text) : text,
      };
      asked.push(one);
      const answer = await answers(one);
      return answer instanceof Response ? answer : Response.json(answer ?? null);
    },
  });
  return asked;
}

/** A store with nothing in it yet. */
export const freshStore = () =>
  configureStore({
    reducer: {
      [api.reducerPath]: api.reducer,
      view: (state: { said: string } = { said: '' }, action: { type: string; payload?: unknown }) =>
        action.type === 'view/said' ? { said: String(action.payload) } : state,
    },
    middleware: (standard) => standard({ serializableCheck: false, immutableCheck: false }).concat(api.middleware),
  });
export type FreshStore = ReturnType<typeof freshStore>;

export interface Shown {
  readonly page: HTMLElement;
  readonly store: FreshStore;
  leave(): Promise<void>;
}

/** Puts elements on the page. */
export async function show(children: ReactNode, store = freshStore()): Promise<Shown> {
  const page = document.body.appendChild(document.createElement('div'));
  const root = createRoot(page);
  await act(async () => root.render(<Provider store={store}>{children}</Provider>));
  return {
    page,
    store,
    async leave() {
      await act(async () => root.unmount());
      page.remove();
    },
  };
}

/** Writes into a field, as a hand does it. */
export const write = (field: HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement, text: string) =>
  act(async () => {
    Object.getOwnPropertyDescriptor(Object.getPrototypeOf(field), 'value')!.set!.call(field, text);
    field.dispatchEvent(new Event('input', { bubbles: true }));
    field.dispatchEvent(new Event('change', { bubbles: true }));
  });

/** Uses a hook on a page of its own: `now()` is what it gave last. */
export async function using<T>(hook: () => T, store = freshStore()) {
  let last: T;
  let turn: (by: (n: number) => number) => void;
  function User() {
    [, turn] = useState(0);
    last = hook();
    return null;
  }
  const shown = await show(<User />, store);
  return {
    ...shown,
    now: () => last,
    /** Does something, and waits until the page has followed. */
    does: async (deed: (now: T) => unknown) => void (await act(async () => void (await deed(last)))),
    /** Uses it again, with whatever it closes over now. */
    again: async () => void (await act(async () => turn((n) => n + 1))),
    /** Waits until something holds. */
    until: async (holds: (now: T) => boolean) => {
      for (let i = 0; i < 200 && !holds(last); i++) await act(() => new Promise((done) => setTimeout(done, 10)));
      if (!holds(last)) throw new Error('It never came to hold.');
    },
  };
}
