import { build, checkNode, installPackages } from './setup.mjs';

checkNode();
installPackages();
build();
