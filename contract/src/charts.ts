import { CHART_PURPOSE_KEYS, type ChartPurpose } from '@rakuen/core/chart/purposes';
import { SHEET_SIZE_KEYS, type SheetSize } from '@rakuen/core/chart/sheet-sizes';
import { TEST_PAGE_SHEETS } from '@rakuen/core/chart/test-page';
import { CHART_LIMITS, type ChartSpec } from '@rakuen/core/chart/chart-design';
import { FreeText, Id, Int, Maybe, Num, OneOf, Part, Plain, QueryInt, Text, When } from './fields.ts';

/** What a chart is asked to be; see core's ChartSpec. */
export class ChartSpecInput {
  @OneOf(CHART_PURPOSE_KEYS) purpose!: ChartPurpose;
  @Int(...CHART_LIMITS.patches) patches!: number;
  @OneOf(SHEET_SIZE_KEYS) sheet!: SheetSize;
  @Num(...CHART_LIMITS.patchMm) patchMm!: number;
  @Int(...CHART_LIMITS.dpi) dpi!: number;
  @Int(...CHART_LIMITS.seed) seed!: number;
}

export class ChartInput {
  @Text(80) name!: string;
  @Part(() => ChartSpecInput) spec!: ChartSpecInput;
}

export class ChartView {
  @Text(80) name!: string;
  @Plain() spec!: ChartSpec;
  @Id() id!: string;
  @When() createdAt!: string;
  @Int() patchCount!: number;
  @Int() stripCount!: number;
  @Int() pageCount!: number;
  /** Reading sessions that use it; a chart that was read stays. */
  @Int() sessionCount!: number;
}

export class ChartFileQuery {
  @OneOf(['tiff', 'pdf', 'cgats']) as!: 'tiff' | 'pdf' | 'cgats';
  /** Sheet of a chart of several, from 1. */
  @Maybe() @QueryInt(1, 100) page?: number;
}

export class TestPageQuery {
  @OneOf(['tiff', 'pdf', 'png', 'cgats']) as!: 'tiff' | 'pdf' | 'png' | 'cgats';
  @OneOf(TEST_PAGE_SHEETS) sheet!: (typeof TEST_PAGE_SHEETS)[number];
  @QueryInt(72, 400) dpi!: number;
  @FreeText(120) paper!: string;
  @FreeText(120) printer!: string;
  @FreeText(120) mediaSetting!: string;
  @FreeText(120) printMode!: string;
  @FreeText(40) date!: string;
  @FreeText(40) resolution!: string;
}
