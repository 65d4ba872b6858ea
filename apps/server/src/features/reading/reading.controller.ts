import { Controller, Get, Param, ParseIntPipe } from '@nestjs/common';
import type { DraftReadingView, VersionView } from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { refusal } from '../../platform/problems/sentences.js';
import { ReadDraftsService } from './read-drafts.service.js';

const WholeNumber = new ParseIntPipe({ exceptionFactory: () => refusal('unknown') });

@Controller('exchanges/:exchangeId')
export class ReadingController {
  constructor(private readonly reading: ReadDraftsService) {}

  @Get('draft/versions/:number')
  version(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('number', WholeNumber) number: number,
  ): Promise<VersionView> {
    return this.reading.version(me, id, number);
  }

  @Get('drafts/:draftId')
  read(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('draftId') draftId: string,
  ): Promise<DraftReadingView> {
    return this.reading.read(me, id, draftId);
  }

  @Get('drafts/:draftId/versions/:number')
  versionOf(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('draftId') draftId: string,
    @Param('number', WholeNumber) number: number,
  ): Promise<VersionView> {
    return this.reading.versionOf(me, id, draftId, number);
  }
}
