import { Body, Controller, Get, HttpCode, Param, Put } from '@nestjs/common';
import { ReleasePeopleRequest, type ReleaseView } from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { ReleaseService } from './release.service.js';

@Controller()
export class ReleaseController {
  constructor(private readonly releasing: ReleaseService) {}

  @Get('exchanges/:exchangeId/release')
  release(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<ReleaseView> {
    return this.releasing.view(me, id);
  }

  @Put('exchanges/:exchangeId/release/people')
  @HttpCode(204)
  releasePeople(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() request: ReleasePeopleRequest,
  ): Promise<void> {
    return this.releasing.setPeople(me, id, request);
  }
}
