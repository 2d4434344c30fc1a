import { PaperRow, ConditionRow, ObservationRow } from './papers.ts';
import { ReadingRow, ChartRow, SessionRow, SessionStripRow, LightRow, ColumnMappingRow } from './readings.ts';
import { ProfileRow, ProfileCheckRow } from './profiles.ts';
import { EyeSessionRow, EyeChoiceRow, TrialRow, PackRow } from './judgements.ts';
import { PictureRow, RecipeRow } from './pictures.ts';
import { MatchRow, SchoolRow, DecisionRow } from './matches.ts';
import { PrintRow, PhotographRow, CauseRow, MisprintRow, RunRow, RunItemRow } from './prints.ts';
import { EditionRow, NumberRow } from './editions.ts';
import { BoxRow } from './drawer.ts';
import { NoteRow, RuleRow, DocumentRow } from './records.ts';

/** Every table that the server reads and writes. */
export const ENTITIES = [
  PaperRow,
  ConditionRow,
  ReadingRow,
  ObservationRow,
  ChartRow,
  SessionRow,
  SessionStripRow,
  ColumnMappingRow,
  LightRow,
  ProfileRow,
  ProfileCheckRow,
  EyeSessionRow,
  EyeChoiceRow,
  TrialRow,
  PackRow,
  PictureRow,
  MatchRow,
  SchoolRow,
  DecisionRow,
  PrintRow,
  PhotographRow,
  BoxRow,
  CauseRow,
  MisprintRow,
  EditionRow,
  NumberRow,
  RecipeRow,
  RunRow,
  RunItemRow,
  NoteRow,
  RuleRow,
  DocumentRow,
];
