import { TestEnvironment } from 'jest-environment-jsdom';

/** What a browser has and the simulated page has not: Node's own stands in. */
const OWN = [
  'fetch',
  'Request',
  'Response',
  'Headers',
  'FormData',
  'File',
  'Blob',
  'AbortController',
  'AbortSignal',
  'TextEncoder',
  'TextDecoder',
  'ReadableStream',
  'structuredClone',
];

/** A page for hooks and elements, with Node's own way of asking a server. */
export default class DomEnvironment extends TestEnvironment {
  async setup() {
    await super.setup();
    for (const name of OWN) this.global[name] = globalThis[name];
    this.global.IS_REACT_ACT_ENVIRONMENT = true;
  }
}
