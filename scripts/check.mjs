import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build, checkNode, installPackages, ROOT } from './setup.mjs';

checkNode();
installPackages();
build();
const { runCheck } = await import(pathToFileURL(join(ROOT, 'server/dist/cli/check.js')).href);
process.exitCode = await runCheck(process.argv.slice(2));
