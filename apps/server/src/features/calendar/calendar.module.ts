import { Module } from '@nestjs/common';
import { CalendarController, CalendarLinkController } from './calendar.controller.js';
import { CalendarService } from './calendar.service.js';

@Module({
  controllers: [CalendarController, CalendarLinkController],
  providers: [CalendarService],
})
export class CalendarModule {}
