import { Body, Controller, HttpCode, Param, Post } from '@nestjs/common';
import { CopyExchangeRequest, type CopyPreview } from '@salt-circle/contracts';
import type { Asker } from '../../access/seeing.js';
import { Me } from '../../access/session.guard.js';
import { CopyService } from './copy.service.js';

@Controller('courses/:courseId/exchanges/copies')
export class CopyController {
  constructor(private readonly copies: CopyService) {}

  @Post('preview')
  @HttpCode(200)
  preview(
    @Me() me: Asker,
    @Param('courseId') courseId: string,
    @Body() request: CopyExchangeRequest,
  ): Promise<CopyPreview> {
    return this.copies.preview(me, courseId, request);
  }

  @Post()
  copy(
    @Me() me: Asker,
    @Param('courseId') courseId: string,
    @Body() request: CopyExchangeRequest,
  ): Promise<{ id: string }> {
    return this.copies.copy(me, courseId, request);
  }
}
