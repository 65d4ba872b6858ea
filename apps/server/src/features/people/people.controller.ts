import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Post, Put, Res } from '@nestjs/common';
import {
  AddPersonRequest,
  InviteRequest,
  JoinRequest,
  PersonRequest,
  RosterApplyRequest,
  RosterRequest,
  type InvitationView,
  type PeopleView,
  type RosterApplied,
  type RosterPreview,
} from '@salt-circle/contracts';
import type { Response } from 'express';
import type { Asker } from '../../access/seeing.js';
import { setSessionCookie } from '../../access/session-cookie.js';
import type { Settings } from '../../platform/config/settings.js';
import { SETTINGS } from '../../platform/config/settings.token.js';
import { Me } from '../../access/session.guard.js';
import { Public } from '../../platform/security/public.js';
import { Invitations } from './invitations.js';
import { PeopleService } from './people.service.js';
import { RosterService } from './roster.service.js';

@Controller('courses/:courseId/people')
export class PeopleController {
  constructor(
    private readonly people: PeopleService,
    private readonly roster: RosterService,
  ) {}

  @Get()
  list(@Me() me: Asker, @Param('courseId') courseId: string): Promise<PeopleView> {
    return this.people.list(me, courseId);
  }

  @Post()
  add(
    @Me() me: Asker,
    @Param('courseId') courseId: string,
    @Body() request: AddPersonRequest,
  ): Promise<{ id: string }> {
    return this.people.add(me, courseId, request);
  }

  @Post('roster/preview')
  @HttpCode(200)
  preview(
    @Me() me: Asker,
    @Param('courseId') courseId: string,
    @Body() request: RosterRequest,
  ): Promise<RosterPreview> {
    return this.roster.preview(me, courseId, request);
  }

  @Post('roster')
  @HttpCode(200)
  apply(
    @Me() me: Asker,
    @Param('courseId') courseId: string,
    @Body() request: RosterApplyRequest,
  ): Promise<RosterApplied> {
    return this.roster.apply(me, courseId, request);
  }

  @Post('invitations')
  @HttpCode(200)
  invite(
    @Me() me: Asker,
    @Param('courseId') courseId: string,
    @Body() { enrolmentIds }: InviteRequest,
  ): Promise<{ invited: number }> {
    return this.people.invite(me, courseId, enrolmentIds);
  }

  @Put(':enrolmentId')
  @HttpCode(204)
  change(
    @Me() me: Asker,
    @Param('courseId') courseId: string,
    @Param('enrolmentId') enrolmentId: string,
    @Body() request: PersonRequest,
  ): Promise<void> {
    return this.people.change(me, courseId, enrolmentId, request);
  }

  @Delete(':enrolmentId')
  @HttpCode(204)
  drop(@Me() me: Asker, @Param('courseId') courseId: string, @Param('enrolmentId') enrolmentId: string): Promise<void> {
    return this.people.setActive(me, courseId, enrolmentId, false);
  }

  @Post(':enrolmentId/return')
  @HttpCode(204)
  takeBack(
    @Me() me: Asker,
    @Param('courseId') courseId: string,
    @Param('enrolmentId') enrolmentId: string,
  ): Promise<void> {
    return this.people.setActive(me, courseId, enrolmentId, true);
  }
}

@Public()
@Controller('invitations/:token')
export class InvitationsController {
  constructor(
    private readonly invitations: Invitations,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  @Get()
  one(@Param('token') token: string): Promise<InvitationView> {
    return this.invitations.one(token);
  }

  @Post()
  @HttpCode(204)
  async accept(
    @Param('token') token: string,
    @Body() { password }: JoinRequest,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    setSessionCookie(response, await this.invitations.accept(token, password), this.settings);
  }
}
