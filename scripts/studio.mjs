import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build, checkNode, installPackages, ROOT } from './setup.mjs';

/** A studio saved, put back, taken elsewhere: `npm run backup`, `restore`, `export`, `import`. */
checkNode();
installPackages();
build();
const { main } = await import(pathToFileURL(join(ROOT, 'server/dist/bundle/studio.js')).href);
await main(process.argv.slice(2));
