import {
  Body,
  Controller,
  Delete,
  Get,
  Header,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Post,
  Put,
  Query,
  StreamableFile,
} from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import {
  CertificatesQuery,
  DriftAccepted,
  EditionInput,
  EditionView,
  NumberInput,
  NumbersInput,
  NumberView,
} from '@rakuen/contract/editions';
import { IfMatch } from '../app/revision.ts';
import { CertificateService } from './certificate.service.ts';
import { EditionsService } from './editions.service.ts';

@ApiTags('editions')
@Controller()
export class EditionsController {
  constructor(
    private readonly editions: EditionsService,
    private readonly certificates: CertificateService,
  ) {}

  @Get('editions')
  @ApiOkResponse({ type: [EditionView] })
  list(): Promise<EditionView[]> {
    return this.editions.list();
  }

  @Post('editions')
  @ApiCreatedResponse({ type: EditionView })
  found(@Body() input: EditionInput): Promise<EditionView> {
    return this.editions.found(input);
  }

  @Put('editions/:id')
  @ApiOkResponse({ type: EditionView })
  change(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() input: EditionInput,
    @IfMatch() from?: number,
  ): Promise<EditionView> {
    return this.editions.change(id, input, from);
  }

  @Delete('editions/:id')
  @HttpCode(204)
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.editions.remove(id);
  }

  /** The next number; never one that was given before. */
  @Post('editions/:id/numbers')
  @ApiCreatedResponse({ type: NumberView })
  number(@Param('id', ParseUUIDPipe) id: string, @Body() input: NumberInput): Promise<NumberView> {
    return this.editions.number(id, input);
  }

  /** The next numbers of a series, for as many copies. */
  @Post('editions/:id/numbers/many')
  @ApiCreatedResponse({ type: [NumberView] })
  manyNumbers(@Param('id', ParseUUIDPipe) id: string, @Body() input: NumbersInput): Promise<NumberView[]> {
    return this.editions.manyNumbers(id, input);
  }

  /** Another box was held against the first print, and accepted by name. */
  @Post('editions/:id/accepted')
  @HttpCode(200)
  @ApiOkResponse({ type: EditionView })
  accept(@Param('id', ParseUUIDPipe) id: string, @Body() input: DriftAccepted): Promise<EditionView> {
    return this.editions.accept(id, input);
  }

  @Get('numbers/:id/certificate.pdf')
  @ApiProduces('application/pdf')
  @Header('Content-Type', 'application/pdf')
  async certificate(@Param('id', ParseUUIDPipe) id: string): Promise<StreamableFile> {
    return new StreamableFile(await this.certificates.pdf([id]));
  }

  /** Certificates of many numbers in one file, a page each. */
  @Get('certificates.pdf')
  @ApiProduces('application/pdf')
  @Header('Content-Type', 'application/pdf')
  async manyCertificates(@Query() { numbers }: CertificatesQuery): Promise<StreamableFile> {
    return new StreamableFile(await this.certificates.pdf(numbers));
  }
}
