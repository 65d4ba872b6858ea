import { Body, Controller, HttpCode, Param, Post } from '@nestjs/common';
import { CopyExchangeRequest, CreateExchangeRequest, type CopyPreview } from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { NewExchangesService } from './new-exchanges.service.js';

@Controller('courses/:courseId/exchanges')
export class NewExchangesController {
  constructor(private readonly exchanges: NewExchangesService) {}

  @Post()
  create(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Body() { title, form = 'none' }: CreateExchangeRequest,
  ): Promise<{ id: string }> {
    return this.exchanges.create(me, courseId, title, form);
  }

  @Post('copies/preview')
  @HttpCode(200)
  preview(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Body() request: CopyExchangeRequest,
  ): Promise<CopyPreview> {
    return this.exchanges.preview(me, courseId, request);
  }

  @Post('copies')
  copy(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Body() request: CopyExchangeRequest,
  ): Promise<{ id: string }> {
    return this.exchanges.copy(me, courseId, request);
  }
}
