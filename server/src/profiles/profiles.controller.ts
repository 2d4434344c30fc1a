import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Post,
  Put,
  Query,
  StreamableFile,
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { ApiConsumes, ApiCreatedResponse, ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import { attachment } from '../app/outgoing.ts';
import { ChartView } from '@rakuen/contract/charts';
import {
  CheckFields,
  CheckInput,
  CheckList,
  CheckView,
  ModelView,
  NextPatchesInput,
  ProfileChoice,
  ProfileJob,
  ProfileSettingsInput,
  ProfileView,
  SolidView,
} from '@rakuen/contract/profiles';
import { UnderWayQuery } from '@rakuen/contract/under-way';
import { upload } from '../app/upload.ts';
import type { IncomingFile } from '../files/file-store.ts';
import { Beside } from '../store/one-at-a-time.ts';
import { ModelsService } from './models.service.ts';
import { ProfilesService } from './profiles.service.ts';

const FileUpload = upload('readingBytes');

@ApiTags('models and profiles')
@Controller()
export class ProfilesController {
  constructor(
    private readonly profiles: ProfilesService,
    private readonly models: ModelsService,
  ) {}

  /** What the model of a print condition knows, and how far off it is. */
  @Get('conditions/:id/model')
  @ApiOkResponse({ type: ModelView })
  model(@Param('id', ParseUUIDPipe) id: string, @Query() { work }: UnderWayQuery): Promise<ModelView> {
    return this.models.view(id, work);
  }

  /** Begins to make a profile; the job tells how it goes. */
  @Post('conditions/:id/profiles')
  @Beside()
  @ApiCreatedResponse({ type: ProfileJob })
  make(@Param('id', ParseUUIDPipe) id: string, @Body() settings: ProfileSettingsInput): Promise<ProfileJob> {
    return this.profiles.make(id, settings);
  }

  @Get('profile-jobs/:id')
  @ApiOkResponse({ type: ProfileJob })
  job(@Param('id', ParseUUIDPipe) id: string): ProfileJob {
    return this.profiles.job(id);
  }

  @Post('profile-jobs/:id/cancel')
  @Beside()
  @ApiCreatedResponse({ type: ProfileJob })
  cancel(@Param('id', ParseUUIDPipe) id: string): ProfileJob {
    return this.profiles.cancel(id);
  }

  /** Says which profile a print condition is printed through. */
  @Put('conditions/:id/profile')
  @ApiOkResponse({ type: [ProfileView] })
  choose(@Param('id', ParseUUIDPipe) id: string, @Body() { profileId }: ProfileChoice): Promise<ProfileView[]> {
    return this.profiles.choose(id, profileId);
  }

  /** Lays out the patches whose reading would help the model most. */
  @Post('conditions/:id/next-patches')
  @Beside('takes its own turn')
  @ApiCreatedResponse({ type: ChartView })
  next(@Param('id', ParseUUIDPipe) id: string, @Body() { count }: NextPatchesInput): Promise<ChartView> {
    return this.profiles.next(id, count);
  }

  @Get('profiles')
  @ApiOkResponse({ type: [ProfileView] })
  list(): Promise<ProfileView[]> {
    return this.profiles.list();
  }

  /** Keeps a maker's profile. */
  @Post('profiles')
  @ApiConsumes('multipart/form-data')
  @ApiCreatedResponse({ type: ProfileView })
  @UseInterceptors(FileUpload)
  bring(@UploadedFile() file: IncomingFile): Promise<ProfileView> {
    return this.profiles.bring(file);
  }

  @Get('profiles/:id/solid')
  @ApiOkResponse({ type: SolidView })
  solid(@Param('id', ParseUUIDPipe) id: string): Promise<SolidView> {
    return this.profiles.solid(id);
  }

  @Get('profiles/:id/file')
  @ApiProduces('application/vnd.iccprofile')
  async file(@Param('id', ParseUUIDPipe) id: string): Promise<StreamableFile> {
    const { name, mediaType, bytes } = await this.profiles.file(id);
    return new StreamableFile(bytes, {
      type: mediaType,
      disposition: attachment(name),
    });
  }

  @Delete('profiles/:id')
  @HttpCode(204)
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.profiles.remove(id);
  }

  /** Lays out the strip that is printed through a profile to check it. */
  @Post('profiles/:id/strip')
  @ApiCreatedResponse({ type: ChartView })
  strip(@Param('id', ParseUUIDPipe) id: string): Promise<ChartView> {
    return this.profiles.strip(id);
  }

  @Get('profiles/:id/checks')
  @ApiOkResponse({ type: CheckList })
  checks(@Param('id', ParseUUIDPipe) id: string): Promise<CheckList> {
    return this.profiles.checks(id);
  }

  /** Holds a set of readings against the profile it was printed through. */
  @Post('profiles/:id/checks')
  @ApiCreatedResponse({ type: CheckView })
  check(@Param('id', ParseUUIDPipe) id: string, @Body() { readingId }: CheckInput): Promise<CheckView> {
    return this.profiles.checkReading(id, readingId);
  }

  /** The same with a file. */
  @Post('profiles/:id/check-files')
  @ApiConsumes('multipart/form-data')
  @ApiCreatedResponse({ type: CheckView })
  @UseInterceptors(FileUpload)
  checkFile(
    @Param('id', ParseUUIDPipe) id: string,
    @UploadedFile() file: IncomingFile,
    @Body() { conditionId }: CheckFields,
  ): Promise<CheckView> {
    return this.profiles.checkFile(id, file, conditionId);
  }
}
