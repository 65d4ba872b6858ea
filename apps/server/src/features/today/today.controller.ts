import { Controller, Get } from '@nestjs/common';
import type { TodayView } from '@salt-circle/contracts';
import type { Asker } from '../../access/seeing.js';
import { Me } from '../../access/session.guard.js';
import { TodayService } from './today.service.js';

@Controller('today')
export class TodayController {
  constructor(private readonly today: TodayService) {}

  @Get()
  of(@Me() me: Asker): Promise<TodayView> {
    return this.today.of(me);
  }
}
