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

const transformer = (tsx) =>
  swcJest.createTransformer({
    jsc: {
      parser: { syntax: 'typescript', decorators: true, tsx },
      transform: {
        legacyDecorator: true,
        decoratorMetadata: true,
        useDefineForClassFields: false,
        react: { runtime: 'automatic' },
      },
      target: 'es2022',
    },
    module: { type: 'es6' },
  });
const [plain, withElements] = [transformer(false), transformer(true)];
const swcFor = (path) => (path.endsWith('x') ? withElements : plain);

export default {
  process: (source, path, options) => swcFor(path).process(withOwnGlobals(source), path, options),
  processAsync: (source, path, options) => swcFor(path).processAsync(withOwnGlobals(source), path, options),
  getCacheKey: (source, path, options) => swcFor(path).getCacheKey(withOwnGlobals(source), path, options),
};
