import { Body, Controller, Delete, Get, HttpCode, Param, Put } from '@nestjs/common';
import { OwnRemarkRequest, type OwnRemarkView } from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { OwnRemarks } from './own-remarks.service.js';

@Controller('own-remarks')
export class OwnRemarksController {
  constructor(private readonly remarks: OwnRemarks) {}

  @Get()
  list(@Me() me: CurrentUser): Promise<OwnRemarkView[]> {
    return this.remarks.list(me);
  }

  @Put(':id')
  @HttpCode(204)
  change(@Me() me: CurrentUser, @Param('id') id: string, @Body() request: OwnRemarkRequest): Promise<void> {
    return this.remarks.change(me, id, request);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Me() me: CurrentUser, @Param('id') id: string): Promise<void> {
    return this.remarks.remove(me, id);
  }
}
