import { Module } from '@nestjs/common';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { MatchesModule } from '../matches/matches.module.ts';
import { ProfilesModule } from '../profiles/profiles.module.ts';
import { ShowPlanService } from './show-plan.service.ts';
import { ShowsController } from './shows.controller.ts';
import { ShowsService } from './shows.service.ts';

@Module({
  imports: [ConditionsModule, MatchesModule, ProfilesModule],
  controllers: [ShowsController],
  providers: [ShowsService, ShowPlanService],
})
export class ShowsModule {}
