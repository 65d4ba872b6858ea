import { Body, Controller, Delete, Get, HttpCode, Inject, Post, Req, Res, UseGuards } from '@nestjs/common';
import { SignInRequest, type SessionView } from '@salt-circle/contracts';
import type { Request, Response } from 'express';
import { Clock } from '../../platform/clock/clock.js';
import type { Settings } from '../../platform/config/settings.js';
import { SETTINGS } from '../../platform/config/settings.token.js';
import { Me } from '../../access/session.guard.js';
import { Public } from '../../platform/security/public.js';
import { SignInThrottle } from '../../platform/security/sign-in.throttle.js';
import type { Asker } from '../../access/seeing.js';
import { clearSessionCookie, setSessionCookie } from '../../access/session-cookie.js';
import { SessionService } from '../../access/session.service.js';
import { SignInService } from './sign-in.service.js';

@Public()
@Controller('session')
export class AccountsController {
  constructor(
    private readonly sessions: SessionService,
    private readonly signing: SignInService,
    private readonly clock: Clock,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  @Get()
  session(@Me() person: Asker | null): SessionView {
    return {
      person:
        person === null
          ? null
          : { id: person.id, name: person.name, email: person.email, createsCourses: person.createsCourses },
      demo: this.settings.mode === 'demo',
      now: new Date(person?.seeing?.at ?? this.clock.now()).toISOString(),
      clockMoved: this.clock.offset !== 0,
      seeing: seeingView(person),
    };
  }

  @Post()
  @HttpCode(204)
  @UseGuards(SignInThrottle)
  async signIn(
    @Body() { email, password }: SignInRequest,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    setSessionCookie(response, await this.signing.signIn(email, password), this.settings);
  }

  @Delete()
  @HttpCode(204)
  async signOut(@Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    await this.sessions.close(request.headers.cookie);
    clearSessionCookie(response, this.settings);
  }
}

function seeingView(person: Asker | null): SessionView['seeing'] {
  if (person?.seeing === undefined) return null;
  const { by, exchangeId, example } = person.seeing;
  return { by: by.name, as: person.name, exchangeId, example };
}
