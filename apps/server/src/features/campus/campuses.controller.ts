import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import { CampusNameRequest, CampusRequest, type CampusesView } from '@salt-circle/contracts';
import type { Asker } from '../../access/seeing.js';
import { Me } from '../../access/session.guard.js';
import { Campuses } from './campuses.service.js';

@Controller('campuses')
export class CampusesController {
  constructor(private readonly campuses: Campuses) {}

  @Get()
  list(@Me() me: Asker): Promise<CampusesView> {
    return this.campuses.list(me);
  }

  @Post()
  add(@Me() me: Asker, @Body() request: CampusRequest): Promise<{ id: string }> {
    return this.campuses.add(me, request);
  }

  @Post('registration')
  registrationLink(@Me() me: Asker, @Body() { name }: CampusNameRequest): Promise<{ url: string }> {
    return this.campuses.registrationLink(me, name);
  }

  @Post('keys')
  @HttpCode(204)
  makeKey(@Me() me: Asker): Promise<void> {
    return this.campuses.makeKey(me);
  }

  @Put(':id')
  @HttpCode(204)
  change(@Me() me: Asker, @Param('id') id: string, @Body() request: CampusRequest): Promise<void> {
    return this.campuses.change(me, id, request);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Me() me: Asker, @Param('id') id: string): Promise<void> {
    return this.campuses.remove(me, id);
  }
}
