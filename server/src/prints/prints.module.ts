import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Module,
  Param,
  ParseUUIDPipe,
  Post,
  Put,
  Query,
} from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { PrintInput, PrintProposal, PrintView, ProposalQuery } from '@rakuen/contract/prints';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { PicturesModule } from '../pictures/pictures.module.ts';
import { PrintsService } from './prints.service.ts';
import { IfMatch } from '../app/revision.ts';

@ApiTags('prints')
@Controller('prints')
class PrintsController {
  constructor(private readonly prints: PrintsService) {}

  @Get()
  @ApiOkResponse({ type: [PrintView] })
  list(): Promise<PrintView[]> {
    return this.prints.list();
  }

  /** Settings to begin with, each with where it was carried over from. */
  @Get('proposal')
  @ApiOkResponse({ type: PrintProposal })
  propose(@Query() query: ProposalQuery): Promise<PrintProposal> {
    return this.prints.propose(query.pictureId, query.conditionId);
  }

  @Post()
  @ApiCreatedResponse({ type: PrintView })
  record(@Body() input: PrintInput): Promise<PrintView> {
    return this.prints.record(input);
  }

  @Put(':id')
  @ApiOkResponse({ type: PrintView })
  replace(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() input: PrintInput,
    @IfMatch() from?: number,
  ): Promise<PrintView> {
    return this.prints.replace(id, input, from);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.prints.remove(id);
  }
}

@Module({
  imports: [ConditionsModule, PicturesModule],
  controllers: [PrintsController],
  providers: [PrintsService],
  exports: [PrintsService],
})
export class PrintsModule {}
