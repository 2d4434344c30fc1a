import swcJest from '@swc/jest';

/**
 * Globals that computations ask for in their inner loops. In Jest's sandbox every such question goes through an
 * interceptor, which costs more than the arithmetic it is asked for: each file takes those it names once, as constants
 * of its own.
 */
const GLOBALS = [
  'Array',
  'Boolean',
  'DataView',
  'Float32Array',
  'Float64Array',
  'Infinity',
  'Int16Array',
  'Int32Array',
  'Map',
  'Math',
  'NaN',
  'Number',
  'Object',
  'Set',
  'String',
  'Uint16Array',
  'Uint32Array',
  'Uint8Array',
];
const named = (source) => GLOBALS.filter((name) => new RegExp(`(?<![.\\w$])${name}\\b`).test(source));

/** What is transformed beforehand, on the first line, so that lines stay where they are. */
function withOwnGlobals(source) {
  const names = named(source);
  return names.length === 0 ? source : `const { ${names.join(', ')} } = globalThis; ${source}`;
}

const swc = swcJest.createTransformer({
  jsc: {
    parser: { syntax: 'typescript', decorators: true },
    transform: { legacyDecorator: true, decoratorMetadata: true, useDefineForClassFields: false },
    target: 'es2022',
  },
  module: { type: 'es6' },
});

export default {
  process: (source, path, options) => swc.process(withOwnGlobals(source), path, options),
  processAsync: (source, path, options) => swc.processAsync(withOwnGlobals(source), path, options),
  getCacheKey: (source, path, options) => swc.getCacheKey(withOwnGlobals(source), path, options),
};
