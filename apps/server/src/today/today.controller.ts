import { Controller, Get } from '@nestjs/common';
import type { TodayView } from '@salt-circle/contracts';
import { Person } from '../accounts/entities.js';
import { Me } from '../security/session.guard.js';
import { TodayService } from './today.service.js';

@Controller('today')
export class TodayController {
  constructor(private readonly today: TodayService) {}

  @Get()
  of(@Me() me: Person): Promise<TodayView> {
    return this.today.of(me);
  }
}
