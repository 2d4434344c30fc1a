import { readFileSync } from 'node:fs';
import { builtinModules } from 'node:module';
import { defineConfig } from 'rolldown';

/**
 * The server in a few files, itself and its worker threads: Node.js then opens two instead of some three thousand, and
 * is ready in half the time. What has binaries or data files of its own stays a package.
 */
const OUTSIDE = [/^better-sqlite3/, /^sharp/, /^lcms-wasm/, /^pdfkit/, /^piscina/, /^@fontsource/, /^opentype\.js/];
const known = new Set([...builtinModules, ...builtinModules.map((m) => `node:${m}`)]);

/** What a thread opens first stays as it is: it may be no module of this kind, and says why itself. */
const thread = {
  name: 'thread',
  generateBundle() {
    this.emitFile({ type: 'asset', fileName: 'thread.cjs', source: readFileSync('server/dist/work/thread.cjs') });
  },
};

/** The framework asks at run time for what older versions of its database package had, and would open all of it twice. */
const databaseOnce = {
  name: 'database-once',
  load: (id) =>
    /@nestjs\/typeorm\/dist\/common\/typeorm-compat\.js$/.test(id.replaceAll('\\', '/'))
      ? `import * as typeorm from 'typeorm';
         export const Connection = typeorm['Connection'];
         export const AbstractRepository = typeorm['AbstractRepository'];`
      : undefined,
};

export default defineConfig({
  plugins: [thread, databaseOnce],
  input: {
    main: 'server/dist/main.js',
    studio: 'server/dist/cli/studio.js',
    worker: 'server/dist/work/worker.js',
    'beside-worker': 'server/dist/work/beside-worker.js',
    'cube-worker': 'server/dist/work/cube-worker.js',
  },
  platform: 'node',
  external: (id, _importer, resolved) => !resolved && (known.has(id) || OUTSIDE.some((p) => p.test(id))),
  // Parts of the framework that are not installed stay unresolved: it asks for them only where they are used.
  logLevel: 'silent',
  output: {
    dir: 'server/dist/bundle',
    format: 'esm',
    entryFileNames: '[name].js',
    chunkFileNames: 'part-[hash].js',
    keepNames: true,
    cleanDir: true,
    minify: { mangle: false, compress: false },
  },
});
