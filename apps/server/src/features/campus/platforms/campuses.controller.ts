import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put, Req } from '@nestjs/common';
import { CampusNameRequest, CampusRequest, type CampusesView } from '@salt-circle/contracts';
import type { Request } from 'express';
import type { CurrentUser } from '../../../auth/view-as.js';
import { RecentPassword } from '../../../auth/recent-password.service.js';
import { Me } from '../../../auth/session.guard.js';
import { assertRuns, Campuses } from './campuses.service.js';

@Controller('campuses')
export class CampusesController {
  constructor(
    private readonly campuses: Campuses,
    private readonly recent: RecentPassword,
  ) {}

  @Get()
  list(@Me() me: CurrentUser): Promise<CampusesView> {
    return this.campuses.list(me);
  }

  @Post()
  async add(
    @Me() me: CurrentUser,
    @Body() request: CampusRequest,
    @Req() { headers }: Request,
  ): Promise<{ id: string }> {
    assertRuns(me);
    await this.recent.assert(me, headers.cookie);
    return this.campuses.add(me, request);
  }

  @Post('registration')
  async registrationLink(
    @Me() me: CurrentUser,
    @Body() { name }: CampusNameRequest,
    @Req() { headers }: Request,
  ): Promise<{ url: string }> {
    assertRuns(me);
    await this.recent.assert(me, headers.cookie);
    return this.campuses.registrationLink(me, name);
  }

  @Post('keys')
  @HttpCode(204)
  async makeKey(@Me() me: CurrentUser, @Req() { headers }: Request): Promise<void> {
    assertRuns(me);
    await this.recent.assert(me, headers.cookie);
    return this.campuses.makeKey(me);
  }

  @Put(':id')
  @HttpCode(204)
  async change(
    @Me() me: CurrentUser,
    @Param('id') id: string,
    @Body() request: CampusRequest,
    @Req() { headers }: Request,
  ): Promise<void> {
    assertRuns(me);
    await this.recent.assert(me, headers.cookie);
    return this.campuses.change(me, id, request);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Me() me: CurrentUser, @Param('id') id: string): Promise<void> {
    return this.campuses.remove(me, id);
  }
}
