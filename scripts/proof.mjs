import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build, checkNode, installPackages, ROOT } from './setup.mjs';

checkNode();
installPackages();
build();
const { runProof } = await import(pathToFileURL(join(ROOT, 'server/dist/cli/proof.js')).href);
process.exitCode = await runProof(process.argv.slice(2));
