import { concurrently } from 'concurrently';
import { build, checkNode, installPackages, ROOT } from './setup.mjs';

checkNode();
installPackages();
build();
const PORT = process.env.RAKUEN_PORT ?? '4870';
const VITE_PORT = '5173';
const { result } = concurrently(
  [
    { name: 'types', command: 'tsc -b core contract demo server --watch --preserveWatchOutput' },
    {
      name: 'server',
      command: `node --watch --watch-preserve-output scripts/serve.mjs --port ${PORT}`,
      env: { RAKUEN_DEV_ORIGIN: `http://127.0.0.1:${VITE_PORT}` },
    },
    {
      name: 'web',
      command: `vite web --host 127.0.0.1 --port ${VITE_PORT} --strictPort`,
      env: { RAKUEN_API: `http://127.0.0.1:${PORT}` },
    },
  ],
  { cwd: ROOT, prefix: 'name', killOthersOn: ['failure'] },
);
await result.catch(() => process.exit(1));
