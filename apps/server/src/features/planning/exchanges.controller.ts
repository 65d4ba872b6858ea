import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import {
  DateNowRequest,
  MoveDatesRequest,
  PersonalDatesRequest,
  PlanRequest,
  ReleaseRequest,
  RulesRequest,
  type ExchangeView,
  type PlanView,
  type SavedView,
} from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { DatesService } from './dates.service.js';
import { ExchangesService } from './exchanges.service.js';
import { PlanService } from './plan.service.js';

@Controller('exchanges/:exchangeId')
export class ExchangesController {
  constructor(
    private readonly exchanges: ExchangesService,
    private readonly plans: PlanService,
    private readonly dates: DatesService,
  ) {}

  @Get()
  one(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<ExchangeView> {
    return this.exchanges.one(me, id);
  }

  @Get('plan')
  plan(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<PlanView> {
    return this.plans.one(me, id);
  }

  @Put('plan')
  savePlan(@Me() me: CurrentUser, @Param('exchangeId') id: string, @Body() request: PlanRequest): Promise<SavedView> {
    return this.plans.save(me, id, request);
  }

  @Put('rules')
  setRules(@Me() me: CurrentUser, @Param('exchangeId') id: string, @Body() request: RulesRequest): Promise<SavedView> {
    return this.plans.setRules(me, id, request);
  }

  @Post('publish')
  @HttpCode(200)
  publish(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<PlanView> {
    return this.plans.publish(me, id);
  }

  @Post('release')
  @HttpCode(200)
  release(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() { at }: ReleaseRequest,
  ): Promise<{ release: string }> {
    return this.dates.release(me, id, at ?? null);
  }

  @Put('dates')
  moveDates(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() request: MoveDatesRequest,
  ): Promise<SavedView> {
    return this.dates.move(me, id, request);
  }

  @Post('dates/now')
  @HttpCode(200)
  dateNow(@Me() me: CurrentUser, @Param('exchangeId') id: string, @Body() request: DateNowRequest): Promise<SavedView> {
    return this.dates.now(me, id, request);
  }

  @Put('personal-dates')
  setPersonalDates(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() request: PersonalDatesRequest,
  ): Promise<{ id: string }> {
    return this.dates.setOwn(me, id, request);
  }

  @Delete('personal-dates/:ownId')
  @HttpCode(204)
  removePersonalDates(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('ownId') ownId: string,
  ): Promise<void> {
    return this.dates.removeOwn(me, id, ownId);
  }
}
