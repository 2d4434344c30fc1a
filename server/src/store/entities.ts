import { ChartRow } from '../charts/charts.entity.ts';
import { ClientRow, MoveRow, OrderLineRow, OrderRow, PlaceRow } from '../clients/clients.entity.ts';
import { ConditionRow, ObservationRow } from '../conditions/conditions.entity.ts';
import { EditionRow, NumberRow } from '../editions/editions.entity.ts';
import { EyeChoiceRow, EyeSessionRow } from '../eye/eye.entity.ts';
import { DecisionRow, MatchRow, RecipeRow, SchoolRow } from '../matches/matches.entity.ts';
import { InboxRow } from '../inbox/inbox.entity.ts';
import { NoteRow } from '../notes/notes.entity.ts';
import { PackRow } from '../packs/packs.entity.ts';
import { PaperRow } from '../papers/papers.entity.ts';
import { PictureRow } from '../pictures/pictures.entity.ts';
import { CauseRow, MisprintRow, PhotographRow, PrintProofRow, PrintRow } from '../prints/prints.entity.ts';
import { PrintFileRow } from '../print-files/print-files.entity.ts';
import { ProfileCheckRow, ProfileRow } from '../profiles/profiles.entity.ts';
import { ColumnMappingRow, ReadingRow } from '../readings/readings.entity.ts';
import { RunItemRow, RunRow } from '../runs/runs.entity.ts';
import { SessionRow, SessionStripRow } from '../sessions/sessions.entity.ts';
import { LightRow } from '../sheets/sheets.entity.ts';
import { ShowPaperRow, ShowPictureRow, ShowRow } from '../shows/shows.entity.ts';
import { BoxRow } from '../stock/stock.entity.ts';
import { DocumentRow } from '../table/table.entity.ts';
import { TrialRow } from '../trials/trials.entity.ts';
import { RuleRow } from './rules.entity.ts';

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
  PrintProofRow,
  BoxRow,
  CauseRow,
  MisprintRow,
  EditionRow,
  NumberRow,
  RecipeRow,
  PrintFileRow,
  RunRow,
  RunItemRow,
  NoteRow,
  InboxRow,
  ShowRow,
  ShowPictureRow,
  ShowPaperRow,
  ClientRow,
  PlaceRow,
  OrderRow,
  OrderLineRow,
  MoveRow,
  RuleRow,
  DocumentRow,
];
