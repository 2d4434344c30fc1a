import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build, checkNode, installPackages, ROOT } from './setup.mjs';

checkNode();
installPackages();
build();
const { runInspect } = await import(pathToFileURL(join(ROOT, 'server/dist/cli/inspect.js')).href);
process.exitCode = await runInspect(process.argv.slice(2));
