import { Body, Controller, HttpCode, Param, Post } from '@nestjs/common';
import { CopyExchangeRequest, CreateExchangeRequest, type CopyPreview } from '@salt-circle/contracts';
import type { Asker } from '../../access/seeing.js';
import { Me } from '../../access/session.guard.js';
import { NewExchangesService } from './new-exchanges.service.js';

@Controller('courses/:courseId/exchanges')
export class NewExchangesController {
  constructor(private readonly exchanges: NewExchangesService) {}

  @Post()
  create(
    @Me() me: Asker,
    @Param('courseId') courseId: string,
    @Body() { title, form = 'none' }: CreateExchangeRequest,
  ): Promise<{ id: string }> {
    return this.exchanges.create(me, courseId, title, form);
  }

  @Post('copies/preview')
  @HttpCode(200)
  preview(
    @Me() me: Asker,
    @Param('courseId') courseId: string,
    @Body() request: CopyExchangeRequest,
  ): Promise<CopyPreview> {
    return this.exchanges.preview(me, courseId, request);
  }

  @Post('copies')
  copy(
    @Me() me: Asker,
    @Param('courseId') courseId: string,
    @Body() request: CopyExchangeRequest,
  ): Promise<{ id: string }> {
    return this.exchanges.copy(me, courseId, request);
  }
}
