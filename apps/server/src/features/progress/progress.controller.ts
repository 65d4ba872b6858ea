import { Controller, Get, Param } from '@nestjs/common';
import type { ProgressView, StoryView } from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { ProgressService } from './progress.service.js';
import { Stories } from './story.service.js';

@Controller('exchanges/:exchangeId')
export class ProgressController {
  constructor(
    private readonly progress: ProgressService,
    private readonly stories: Stories,
  ) {}

  @Get('progress')
  board(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<ProgressView> {
    return this.progress.board(me, id);
  }

  @Get('participants/:participantId/story')
  story(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('participantId') participantId: string,
  ): Promise<StoryView> {
    return this.stories.of(me, id, participantId);
  }
}
