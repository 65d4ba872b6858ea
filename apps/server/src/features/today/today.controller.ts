import { Controller, Get } from '@nestjs/common';
import type { TodayView } from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { TodayService } from './today.service.js';

@Controller('today')
export class TodayController {
  constructor(private readonly today: TodayService) {}

  @Get()
  of(@Me() me: CurrentUser): Promise<TodayView> {
    return this.today.of(me);
  }
}
