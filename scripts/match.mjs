import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build, checkNode, installPackages, ROOT } from './setup.mjs';

checkNode();
installPackages();
build();
const { runMatch } = await import(pathToFileURL(join(ROOT, 'server/dist/cli/match.js')).href);
process.exitCode = await runMatch(process.argv.slice(2));
