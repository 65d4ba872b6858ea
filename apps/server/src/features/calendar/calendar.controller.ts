import { Controller, Delete, Get, HttpCode, Param, Post, Res } from '@nestjs/common';
import type { CalendarLinkView } from '@salt-circle/contracts';
import type { Response } from 'express';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { Public } from '../../platform/security/public.js';
import { CalendarService } from './calendar.service.js';

@Controller('calendar-link')
export class CalendarLinkController {
  constructor(private readonly calendar: CalendarService) {}

  @Get()
  link(@Me() me: CurrentUser): Promise<CalendarLinkView> {
    return this.calendar.link(me);
  }

  @Post()
  makeLink(@Me() me: CurrentUser): Promise<{ url: string }> {
    return this.calendar.makeLink(me);
  }

  @Delete()
  @HttpCode(204)
  revoke(@Me() me: CurrentUser): Promise<void> {
    return this.calendar.revoke(me);
  }
}

/** For calendar programs, which cannot sign in: the address itself is the key. */
@Public()
@Controller('calendar')
export class CalendarController {
  constructor(private readonly calendar: CalendarService) {}

  @Get(':token')
  async feed(@Param('token') token: string, @Res() response: Response): Promise<void> {
    const text = await this.calendar.feed(token.replace(/\.ics$/u, ''));
    response.type('text/calendar; charset=utf-8').send(text);
  }
}
