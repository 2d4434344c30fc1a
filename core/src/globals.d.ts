/** The Encoding Standard's decoder: browsers, workers and Node.js all have it. */
declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean });
  decode(input?: Uint8Array): string;
}
