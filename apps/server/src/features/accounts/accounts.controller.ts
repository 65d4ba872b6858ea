import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Post, Put, Req, Res } from '@nestjs/common';
import {
  ChangeAddressRequest,
  ChangePasswordRequest,
  ConfirmPasswordRequest,
  ForgottenRequest,
  NewPasswordRequest,
  OwnNameRequest,
  SignInRequest,
  TokenRequest,
  type AddressLinkView,
  type MadeTokenView,
  type PasswordLinkView,
  type SessionView,
  type TokensView,
} from '@salt-circle/contracts';
import type { Request, Response } from 'express';
import { Clock } from '../../platform/clock/clock.js';
import { mailArrives, type Settings } from '../../platform/config/settings.js';
import { SETTINGS } from '../../platform/config/settings.token.js';
import { Me } from '../../auth/session.guard.js';
import { knownBrowser, setKnownBrowser } from '../../auth/known-browser.js';
import { RecentPassword } from '../../auth/recent-password.service.js';
import { signedOut } from '../../platform/problems/sentences.js';
import { networkOf } from '../../platform/security/network.js';
import { Public } from '../../platform/security/public.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { browserOf, clearSessionCookie, setSessionCookie } from '../../auth/session-cookie.js';
import { SessionService } from '../../auth/session.service.js';
import { AccountService } from './account.service.js';
import { AddressChanges } from './address-changes.service.js';
import { PasswordLinks } from './password-links.service.js';
import { Tokens } from './tokens.service.js';
import { SignInService } from './sign-in.service.js';

@Public()
@Controller('session')
export class SessionController {
  constructor(
    private readonly sessions: SessionService,
    private readonly signing: SignInService,
    private readonly recent: RecentPassword,
    private readonly clock: Clock,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  @Get()
  session(@Me() person: CurrentUser | null): SessionView {
    return {
      person:
        person === null
          ? null
          : {
              ...{ id: person.id, name: person.name, email: person.email ?? '' },
              ...{ createsCourses: person.createsCourses, runsPlatforms: person.runsPlatforms },
            },
      demo: this.settings.mode === 'demo',
      mail: mailArrives(this.settings),
      now: new Date(person?.viewAs?.at ?? this.clock.now()).toISOString(),
      clockMoved: this.clock.offset !== 0,
      viewAs: viewAsView(person),
    };
  }

  @Post()
  @HttpCode(204)
  async signIn(
    @Body() { email, password }: SignInRequest,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    const account = email.trim().toLowerCase();
    const { cookie } = request.headers;
    const known = knownBrowser(cookie, account, this.settings);
    const from = { network: networkOf(request.ip), browser: browserOf(request), known };
    setSessionCookie(response, await this.signing.signIn(email, password, from), this.settings);
    setKnownBrowser(response, cookie, account, this.settings);
  }

  /** Says once more who one is, for acts that ask for it. */
  @Post('password')
  @HttpCode(204)
  confirmPassword(
    @Me() me: CurrentUser | null,
    @Body() { password }: ConfirmPasswordRequest,
    @Req() request: Request,
  ): Promise<void> {
    if (me === null) throw signedOut();
    return this.recent.confirm(me, password, request.headers.cookie);
  }

  @Delete()
  @HttpCode(204)
  async signOut(@Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    await this.sessions.close(request.headers.cookie);
    clearSessionCookie(response, this.settings);
  }
}

/** For whoever cannot sign in, or follows a link in a mail. */
@Public()
@Controller()
export class LinksController {
  constructor(
    private readonly passwords: PasswordLinks,
    private readonly addresses: AddressChanges,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  @Post('forgotten')
  @HttpCode(204)
  forgotten(@Body() { email }: ForgottenRequest, @Req() request: Request): Promise<void> {
    return this.passwords.ask(email, networkOf(request.ip));
  }

  @Get('password-links/:token')
  passwordLink(@Param('token') token: string): Promise<PasswordLinkView> {
    return this.passwords.one(token);
  }

  @Post('password-links/:token')
  @HttpCode(204)
  async newPassword(
    @Param('token') token: string,
    @Body() { password }: NewPasswordRequest,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    setSessionCookie(response, await this.passwords.use(token, password, browserOf(request)), this.settings);
  }

  @Get('address-links/:token')
  addressLink(@Param('token') token: string): Promise<AddressLinkView> {
    return this.addresses.one(token);
  }

  @Post('address-links/:token')
  @HttpCode(200)
  confirm(@Param('token') token: string): Promise<{ readonly made: boolean }> {
    return this.addresses.confirm(token);
  }
}

@Controller('account')
export class AccountController {
  constructor(
    private readonly account: AccountService,
    private readonly addresses: AddressChanges,
    private readonly tokens: Tokens,
    private readonly recent: RecentPassword,
  ) {}

  @Get('tokens')
  tokensOf(@Me() me: CurrentUser): Promise<TokensView> {
    return this.tokens.of(me);
  }

  @Post('tokens')
  async makeToken(@Me() me: CurrentUser, @Body() body: TokenRequest, @Req() request: Request): Promise<MadeTokenView> {
    await this.recent.assert(me, request.headers.cookie);
    return this.tokens.make(me, body);
  }

  @Delete('tokens/:id')
  @HttpCode(204)
  takeBackToken(@Me() me: CurrentUser, @Param('id') id: string): Promise<void> {
    return this.tokens.takeBack(me, id);
  }

  @Put('name')
  @HttpCode(204)
  rename(@Me() me: CurrentUser, @Body() { name }: OwnNameRequest): Promise<void> {
    return this.account.rename(me, name);
  }

  @Put('password')
  @HttpCode(204)
  changePassword(
    @Me() me: CurrentUser,
    @Body() { old, password }: ChangePasswordRequest,
    @Req() request: Request,
  ): Promise<void> {
    return this.account.changePassword(me, old, password, request.headers.cookie);
  }

  @Put('address')
  @HttpCode(204)
  async changeAddress(@Me() me: CurrentUser, @Body() { email, password }: ChangeAddressRequest): Promise<void> {
    await this.recent.assertPassword(me, password, 'password');
    await this.addresses.ask(me, email);
  }

  @Delete('address')
  @HttpCode(204)
  keepAddress(@Me() me: CurrentUser): Promise<void> {
    return this.addresses.callOff(me);
  }

  @Delete('sessions')
  @HttpCode(204)
  endOthers(@Me() me: CurrentUser, @Req() request: Request): Promise<void> {
    return this.account.endSessions(me, request.headers.cookie);
  }

  @Delete('sessions/:id')
  @HttpCode(204)
  endOne(@Me() me: CurrentUser, @Param('id') id: string, @Req() request: Request): Promise<void> {
    return this.account.endSessions(me, request.headers.cookie, id);
  }
}

function viewAsView(person: CurrentUser | null): SessionView['viewAs'] {
  if (person?.viewAs === undefined) return null;
  const { by, exchangeId, example } = person.viewAs;
  return { by: by.name, as: person.name, exchangeId, example };
}
