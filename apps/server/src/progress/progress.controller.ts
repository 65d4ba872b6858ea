import { Controller, Get, Param } from '@nestjs/common';
import type { ProgressView } from '@salt-circle/contracts';
import { Person } from '../accounts/entities.js';
import { Me } from '../security/session.guard.js';
import { ProgressService } from './progress.service.js';

@Controller('exchanges/:exchangeId/progress')
export class ProgressController {
  constructor(private readonly progress: ProgressService) {}

  @Get()
  board(@Me() me: Person, @Param('exchangeId') id: string): Promise<ProgressView> {
    return this.progress.board(me, id);
  }
}
