import { Body, Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import {
  AllocationApplyRequest,
  AllocationPreviewRequest,
  type AllocationPreviewView,
  type AllocationView,
} from '@salt-circle/contracts';
import { Person } from '../accounts/entities.js';
import { Me } from '../security/session.guard.js';
import { AllocationService } from './allocation.service.js';

@Controller('exchanges/:exchangeId/allocation')
export class AllocationController {
  constructor(private readonly allocation: AllocationService) {}

  @Get()
  one(@Me() me: Person, @Param('exchangeId') id: string): Promise<AllocationView> {
    return this.allocation.one(me, id);
  }

  @Post('preview')
  @HttpCode(200)
  preview(
    @Me() me: Person,
    @Param('exchangeId') id: string,
    @Body() { seed }: AllocationPreviewRequest,
  ): Promise<AllocationPreviewView> {
    return this.allocation.preview(me, id, seed);
  }

  @Post()
  @HttpCode(200)
  apply(
    @Me() me: Person,
    @Param('exchangeId') id: string,
    @Body() { seed, fingerprint }: AllocationApplyRequest,
  ): Promise<AllocationView> {
    return this.allocation.apply(me, id, seed, fingerprint);
  }
}
