import { Body, Controller, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import {
  PlanRequest,
  ReleaseRequest,
  type ExchangeView,
  type PlanView,
  type RecordRow,
  type SavedView,
} from '@salt-circle/contracts';
import { Person } from '../accounts/entities.js';
import { Me } from '../security/session.guard.js';
import { ExchangesService } from './exchanges.service.js';
import { PlanService } from './plan.service.js';

@Controller('exchanges/:exchangeId')
export class ExchangesController {
  constructor(
    private readonly exchanges: ExchangesService,
    private readonly plans: PlanService,
  ) {}

  @Get()
  one(@Me() me: Person, @Param('exchangeId') id: string): Promise<ExchangeView> {
    return this.exchanges.one(me, id);
  }

  @Get('record')
  record(@Me() me: Person, @Param('exchangeId') id: string): Promise<RecordRow[]> {
    return this.exchanges.record(me, id);
  }

  @Get('plan')
  plan(@Me() me: Person, @Param('exchangeId') id: string): Promise<PlanView> {
    return this.plans.one(me, id);
  }

  @Put('plan')
  savePlan(@Me() me: Person, @Param('exchangeId') id: string, @Body() request: PlanRequest): Promise<SavedView> {
    return this.plans.save(me, id, request);
  }

  @Post('publish')
  @HttpCode(200)
  publish(@Me() me: Person, @Param('exchangeId') id: string): Promise<PlanView> {
    return this.plans.publish(me, id);
  }

  @Post('release')
  @HttpCode(200)
  release(
    @Me() me: Person,
    @Param('exchangeId') id: string,
    @Body() { at }: ReleaseRequest,
  ): Promise<{ release: string }> {
    return this.plans.release(me, id, at ?? null);
  }
}
