import { Body, Controller, HttpCode, Param, Post, Put } from '@nestjs/common';
import { WithholdableRequest, WithholdRequest } from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { Withholding } from './withholding.service.js';

@Controller()
export class WithholdingController {
  constructor(private readonly withholding: Withholding) {}

  @Put('reviews/:reviewId/withheld')
  @HttpCode(204)
  withhold(@Me() me: CurrentUser, @Param('reviewId') id: string, @Body() request: WithholdRequest): Promise<void> {
    return this.withholding.withhold(me, id, request);
  }

  @Post('reviews/:reviewId/given-back')
  @HttpCode(204)
  giveBack(@Me() me: CurrentUser, @Param('reviewId') id: string, @Body() request: WithholdableRequest): Promise<void> {
    return this.withholding.giveBack(me, id, request);
  }
}
