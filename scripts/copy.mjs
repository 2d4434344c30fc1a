import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build, checkNode, installPackages, ROOT } from './setup.mjs';

checkNode();
installPackages();
build();
const { runCopy } = await import(pathToFileURL(join(ROOT, 'server/dist/cli/copy.js')).href);
process.exitCode = await runCopy(process.argv.slice(2));
