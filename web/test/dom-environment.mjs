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

/** Node's own form data, which the page fills from a form. */
const readsForms = (OfThePage) =>
  class extends globalThis.FormData {
    constructor(form) {
      super();
      if (form) for (const [name, value] of new OfThePage(form)) this.append(name, value);
    }
  };

/** A page for hooks and elements, with Node's own way of asking a server. */
export default class DomEnvironment extends TestEnvironment {
  async setup() {
    await super.setup();
    const { FormData: OfThePage } = this.global;
    for (const name of OWN) this.global[name] = globalThis[name];
    this.global.FormData = readsForms(OfThePage);
    this.global.IS_REACT_ACT_ENVIRONMENT = true;
  }
}
