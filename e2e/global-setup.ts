import { Studio } from './studio.ts';

/** Fills one demo studio before all tests; each worker then takes a copy of it. */
export default async function fillOnce(): Promise<() => void> {
  const filled = new Studio();
  await filled.open();
  await filled.close();
  process.env.RAKUEN_FILLED = filled.data;
  return () => filled.clear();
}
