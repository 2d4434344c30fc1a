import type { Claims } from '../paper.ts';
import type { Figure } from './figure.ts';
import { MEASURES } from './measures/registry.ts';

/** Measures of which a maker claims something, each with the claim. */
export const CLAIMS = MEASURES.flatMap(({ key, claim }) => (claim ? [{ key, claim }] : []));

/** Where what is claimed and what is measured do not go together, in sentences. */
export const disagreements = (paper: Claims, figures: Readonly<Record<string, Figure>>): string[] =>
  CLAIMS.flatMap(({ key, claim }) => {
    const found = figures[key];
    return (found && claim.quarrel?.(paper, found)) ?? [];
  });
