import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put, Req } from '@nestjs/common';
import { PlatformNameRequest, PlatformRequest, type PlatformsView } from '@salt-circle/contracts';
import type { Request } from 'express';
import type { CurrentUser } from '../../../auth/view-as.js';
import { RecentPassword } from '../../../auth/recent-password.service.js';
import { Me } from '../../../auth/session.guard.js';
import { assertRuns, Platforms } from './platforms.service.js';

@Controller('platforms')
export class PlatformsController {
  constructor(
    private readonly platforms: Platforms,
    private readonly recent: RecentPassword,
  ) {}

  @Get()
  list(@Me() me: CurrentUser): Promise<PlatformsView> {
    return this.platforms.list(me);
  }

  @Post()
  async add(
    @Me() me: CurrentUser,
    @Body() request: PlatformRequest,
    @Req() { headers }: Request,
  ): Promise<{ id: string }> {
    assertRuns(me);
    await this.recent.assert(me, headers.cookie);
    return this.platforms.add(me, request);
  }

  @Post('registration')
  async registrationLink(
    @Me() me: CurrentUser,
    @Body() { name }: PlatformNameRequest,
    @Req() { headers }: Request,
  ): Promise<{ url: string }> {
    assertRuns(me);
    await this.recent.assert(me, headers.cookie);
    return this.platforms.registrationLink(me, name);
  }

  @Post('keys')
  @HttpCode(204)
  async makeKey(@Me() me: CurrentUser, @Req() { headers }: Request): Promise<void> {
    assertRuns(me);
    await this.recent.assert(me, headers.cookie);
    return this.platforms.makeKey(me);
  }

  @Put(':id')
  @HttpCode(204)
  async change(
    @Me() me: CurrentUser,
    @Param('id') id: string,
    @Body() request: PlatformRequest,
    @Req() { headers }: Request,
  ): Promise<void> {
    assertRuns(me);
    await this.recent.assert(me, headers.cookie);
    return this.platforms.change(me, id, request);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Me() me: CurrentUser, @Param('id') id: string): Promise<void> {
    return this.platforms.remove(me, id);
  }
}
