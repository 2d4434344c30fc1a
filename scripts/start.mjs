import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build, checkNode, installPackages, preparedStudio, ROOT } from './setup.mjs';

checkNode();
installPackages();
build();
const { main } = await import(pathToFileURL(join(ROOT, 'server/dist/bundle/main.js')).href);
process.env.RAKUEN_PREPARED ??= preparedStudio() ?? '';
await main(['--web', join(ROOT, 'web/dist'), ...process.argv.slice(2)]);
