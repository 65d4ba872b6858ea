import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Post, Put, Req, Res } from '@nestjs/common';
import {
  AddPersonRequest,
  InviteRequest,
  JoinRequest,
  PersonRequest,
  RosterApplyRequest,
  RosterRequest,
  type AccountView,
  type InvitationLinkRow,
  type InvitationView,
  type OpenPlace,
  type PeopleView,
  type RosterApplied,
  type RosterPreview,
} from '@salt-circle/contracts';
import type { Request, Response } from 'express';
import type { CurrentUser } from '../../auth/view-as.js';
import { browserOf, setSessionCookie } from '../../auth/session-cookie.js';
import type { Settings } from '../../platform/config/settings.js';
import { SETTINGS } from '../../platform/config/settings.token.js';
import { Me } from '../../auth/session.guard.js';
import { csvOf } from '../../platform/tables/cells.js';
import { Public } from '../../platform/security/public.js';
import { AccountService } from '../accounts/account.service.js';
import { Invitations } from './invitations.service.js';
import { PeopleService } from './people.service.js';
import { RosterService } from './roster.service.js';

@Controller('courses/:courseId/people')
export class PeopleController {
  constructor(
    private readonly people: PeopleService,
    private readonly roster: RosterService,
  ) {}

  @Get()
  list(@Me() me: CurrentUser, @Param('courseId') courseId: string): Promise<PeopleView> {
    return this.people.list(me, courseId);
  }

  @Post()
  add(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Body() request: AddPersonRequest,
  ): Promise<{ id: string }> {
    return this.people.add(me, courseId, request);
  }

  @Post('roster/preview')
  @HttpCode(200)
  preview(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Body() request: RosterRequest,
  ): Promise<RosterPreview> {
    return this.roster.preview(me, courseId, request);
  }

  @Post('roster')
  @HttpCode(200)
  apply(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Body() request: RosterApplyRequest,
  ): Promise<RosterApplied> {
    return this.roster.apply(me, courseId, request);
  }

  /** Links that staff pass on where no mail server is set. */
  @Get('invitations')
  invitations(@Me() me: CurrentUser, @Param('courseId') courseId: string): Promise<InvitationLinkRow[]> {
    return this.people.invitationLinks(me, courseId);
  }

  @Get('invitations.csv')
  async invitationsFile(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<string> {
    const rows = await this.people.invitationLinks(me, courseId);
    response.setHeader('Content-Type', 'text/csv; charset=utf-8');
    response.setHeader('Content-Disposition', 'attachment; filename="invitations.csv"');
    return csvOf([['name', 'email', 'link'], ...rows.map(({ name, email, link }) => [name, email, link ?? ''])]);
  }

  @Post('invitations')
  @HttpCode(200)
  invite(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Body() { enrolmentIds }: InviteRequest,
  ): Promise<{ invited: number }> {
    return this.people.invite(me, courseId, enrolmentIds);
  }

  @Post(':enrolmentId/password-link')
  @HttpCode(204)
  passwordLink(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Param('enrolmentId') enrolmentId: string,
  ): Promise<void> {
    return this.people.sendPasswordLink(me, courseId, enrolmentId);
  }

  @Put(':enrolmentId')
  @HttpCode(204)
  change(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Param('enrolmentId') enrolmentId: string,
    @Body() request: PersonRequest,
  ): Promise<void> {
    return this.people.change(me, courseId, enrolmentId, request);
  }

  @Delete(':enrolmentId')
  @HttpCode(204)
  drop(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Param('enrolmentId') enrolmentId: string,
  ): Promise<void> {
    return this.people.setActive(me, courseId, enrolmentId, false);
  }

  @Post(':enrolmentId/return')
  @HttpCode(204)
  takeBack(
    @Me() me: CurrentUser,
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
    @Me() me: CurrentUser | null,
    @Param('token') token: string,
    @Body() body: JoinRequest,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    const session = await this.invitations.accept(token, me, body, browserOf(request));
    if (session !== null) setSessionCookie(response, session, this.settings);
  }
}

/** The account with the places that are open to it. */
@Controller('account')
export class OwnPlacesController {
  constructor(
    private readonly account: AccountService,
    private readonly invitations: Invitations,
  ) {}

  @Get()
  async one(@Me() me: CurrentUser, @Req() request: Request): Promise<AccountView> {
    const account = await this.account.one(me, request.headers.cookie);
    return { ...account, open: await this.invitations.openTo(me) };
  }

  @Get('places')
  open(@Me() me: CurrentUser): Promise<OpenPlace[]> {
    return this.invitations.openTo(me);
  }

  @Post('places')
  @HttpCode(204)
  take(@Me() me: CurrentUser, @Body() { placeIds }: JoinRequest): Promise<void> {
    return this.invitations.takeOpen(me, placeIds);
  }
}
