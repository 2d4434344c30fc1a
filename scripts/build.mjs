import { build, checkNode, installPackages, prepareStudio } from './setup.mjs';

/** Everything a start needs, the invented studio included; `--code` stops before that. */
checkNode();
installPackages();
build();
if (!process.argv.includes('--code')) prepareStudio();
