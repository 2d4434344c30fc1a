import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './setup.mjs';

/** Writes THIRD-PARTY.md: every package and font that ships with Rakuen, with its licence, from what is installed. */
const lock = JSON.parse(readFileSync(join(ROOT, 'package-lock.json'), 'utf8'));
const rows = Object.entries(lock.packages)
  .filter(
    ([path, p]) => path.includes('node_modules/') && !p.dev && !p.link && existsSync(join(ROOT, path, 'package.json')),
  )
  .map(([path]) => {
    const { name, version, license, licenses } = JSON.parse(readFileSync(join(ROOT, path, 'package.json'), 'utf8'));
    const said = typeof license === 'string' ? license : (license?.type ?? licenses?.map((l) => l.type).join(' or '));
    return { name, version, licence: said ?? 'see the package' };
  })
  .filter(({ name }, i, all) => all.findIndex((p) => p.name === name) === i)
  .sort((p, q) => p.name.localeCompare(q.name));
const lines = [
  '# Packages and fonts that ship with Rakuen',
  '',
  'Made by `node scripts/notices.mjs`. The texts of the licences lie in each package. Fonts: Source Sans 3, Source Serif 4 and, for other scripts, Noto Sans; SIL Open Font License 1.1.',
  '',
  '| package | version | licence |',
  '|---|---|---|',
  ...rows.map((r) => `| ${r.name} | ${r.version} | ${r.licence} |`),
];
writeFileSync(join(ROOT, 'THIRD-PARTY.md'), `${lines.join('\n')}\n`);
console.log(`${rows.length} packages`);
