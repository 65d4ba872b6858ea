import { Controller, Get, Param } from '@nestjs/common';
import type { ProgressView } from '@salt-circle/contracts';
import type { Asker } from '../../access/seeing.js';
import { Me } from '../../access/session.guard.js';
import { ProgressService } from './progress.service.js';

@Controller('exchanges/:exchangeId/progress')
export class ProgressController {
  constructor(private readonly progress: ProgressService) {}

  @Get()
  board(@Me() me: Asker, @Param('exchangeId') id: string): Promise<ProgressView> {
    return this.progress.board(me, id);
  }
}
