import { main } from '../server/dist/main.js';

/** The built server alone, for `npm run dev`; the interface comes from Vite. */
await main(process.argv.slice(2));
