import { Body, Controller, Delete, Get, HttpCode, Param, Put } from '@nestjs/common';
import { OwnRemarkRequest, type OwnRemarkView } from '@salt-circle/contracts';
import type { Asker } from '../../access/seeing.js';
import { Me } from '../../access/session.guard.js';
import { OwnRemarks } from './own-remarks.service.js';

@Controller('own-remarks')
export class OwnRemarksController {
  constructor(private readonly remarks: OwnRemarks) {}

  @Get()
  list(@Me() me: Asker): Promise<OwnRemarkView[]> {
    return this.remarks.list(me);
  }

  @Put(':id')
  @HttpCode(204)
  change(@Me() me: Asker, @Param('id') id: string, @Body() request: OwnRemarkRequest): Promise<void> {
    return this.remarks.change(me, id, request);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Me() me: Asker, @Param('id') id: string): Promise<void> {
    return this.remarks.remove(me, id);
  }
}
