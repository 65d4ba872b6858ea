import { Controller, Get, Param, Res } from '@nestjs/common';
import type { AuditRow } from '@salt-circle/contracts';
import contentDisposition from 'content-disposition';
import type { Response } from 'express';
import { Me } from '../../auth/session.guard.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { say } from '../../words/audit.js';
import { AuditService } from './audit.service.js';

@Controller('exchanges/:exchangeId')
export class AuditController {
  constructor(private readonly audit: AuditService) {}

  @Get('activity')
  rows(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<AuditRow[]> {
    return this.audit.rows(me, id);
  }

  @Get('activity.csv')
  async csv(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<string> {
    const csv = await this.audit.csv(me, id);
    response.setHeader('Content-Type', 'text/csv; charset=utf-8');
    response.setHeader('Content-Disposition', contentDisposition(say('csvName')));
    return csv;
  }
}
