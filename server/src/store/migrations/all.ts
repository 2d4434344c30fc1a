import { First1760000000000 } from './1760000000000-first.ts';
import { ReadingPart1760600000000 } from './1760600000000-reading-part.ts';
import { Bench1764000000000 } from './1764000000000-bench.ts';
import { Compare1765000000000 } from './1765000000000-compare.ts';
import { Record1766000000000 } from './1766000000000-record.ts';
import { Commissions1768000000000 } from './1768000000000-commissions.ts';
import { Prints1769000000000 } from './1769000000000-prints.ts';
import { Recipes1770000000000 } from './1770000000000-recipes.ts';
import { SheetLaid1771000000000 } from './1771000000000-sheet-laid.ts';
import { Photographs1772000000000 } from './1772000000000-photographs.ts';
import { PictureRevision1773000000000 } from './1773000000000-picture-revision.ts';
import { Rules1774000000000 } from './1774000000000-rules.ts';
import { Notes1775000000000 } from './1775000000000-notes.ts';
import { Finding1776000000000 } from './1776000000000-finding.ts';
import { OpenClaims1777000000000 } from './1777000000000-open-claims.ts';
import { ToldApart1778000000000 } from './1778000000000-told-apart.ts';
import { Apart1779000000000 } from './1779000000000-apart.ts';
import { Inbox1780000000000 } from './1780000000000-inbox.ts';
import { Pairs1781000000000 } from './1781000000000-pairs.ts';
import { Entry1782000000000 } from './1782000000000-entry.ts';
import { Lamps1783000000000 } from './1783000000000-lamps.ts';
import { DecisionCosts1784000000000 } from './1784000000000-decision-costs.ts';
import { PictureGists1785000000000 } from './1785000000000-picture-gists.ts';
import { Shows1786000000000 } from './1786000000000-shows.ts';
import { BoxOfNumber1787000000000 } from './1787000000000-box-of-number.ts';
import { Clients1791000000000 } from './1791000000000-clients.ts';
import { PrintProofs1790000000000 } from './1790000000000-print-proofs.ts';
import { LedgerDays1789000000000 } from './1789000000000-ledger-days.ts';
import { MadeWith1788000000000 } from './1788000000000-made-with.ts';
import { Profiles1767000000000 } from './1767000000000-profiles.ts';

/** Every step from an empty database to today's, in order. */
export const MIGRATIONS = [
  First1760000000000,
  ReadingPart1760600000000,
  Bench1764000000000,
  Compare1765000000000,
  Record1766000000000,
  Profiles1767000000000,
  Commissions1768000000000,
  Prints1769000000000,
  Recipes1770000000000,
  SheetLaid1771000000000,
  Photographs1772000000000,
  PictureRevision1773000000000,
  Rules1774000000000,
  Notes1775000000000,
  Finding1776000000000,
  OpenClaims1777000000000,
  ToldApart1778000000000,
  Apart1779000000000,
  Inbox1780000000000,
  Pairs1781000000000,
  Entry1782000000000,
  Lamps1783000000000,
  DecisionCosts1784000000000,
  PictureGists1785000000000,
  Shows1786000000000,
  BoxOfNumber1787000000000,
  MadeWith1788000000000,
  LedgerDays1789000000000,
  PrintProofs1790000000000,
  Clients1791000000000,
];
