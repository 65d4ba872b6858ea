import { Body, Controller, HttpCode, Param, Post, Put } from '@nestjs/common';
import { WithholdableRequest, WithholdRequest } from '@salt-circle/contracts';
import type { Asker } from '../../access/seeing.js';
import { Me } from '../../access/session.guard.js';
import { Withholding } from './withholding.service.js';

@Controller()
export class WithholdingController {
  constructor(private readonly withholding: Withholding) {}

  @Put('reviews/:reviewId/withheld')
  @HttpCode(204)
  withhold(@Me() me: Asker, @Param('reviewId') id: string, @Body() request: WithholdRequest): Promise<void> {
    return this.withholding.withhold(me, id, request);
  }

  @Post('reviews/:reviewId/given-back')
  @HttpCode(204)
  giveBack(@Me() me: Asker, @Param('reviewId') id: string, @Body() request: WithholdableRequest): Promise<void> {
    return this.withholding.giveBack(me, id, request);
  }
}
