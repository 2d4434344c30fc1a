import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build, checkNode, installPackages, ROOT } from './setup.mjs';

checkNode();
installPackages();
build();
const { runProfile } = await import(pathToFileURL(join(ROOT, 'server/dist/cli/profile.js')).href);
process.exitCode = await runProfile(process.argv.slice(2));
