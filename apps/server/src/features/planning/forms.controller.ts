import { Body, Controller, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import { FormRequest, UseFormRequest, type FormView, type SavedView } from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { FormsService } from './forms.service.js';

@Controller('exchanges/:exchangeId/form')
export class FormsController {
  constructor(private readonly forms: FormsService) {}

  @Get()
  one(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<FormView> {
    return this.forms.one(me, id);
  }

  @Put()
  save(@Me() me: CurrentUser, @Param('exchangeId') id: string, @Body() request: FormRequest): Promise<SavedView> {
    return this.forms.save(me, id, request);
  }

  @Post('from-library')
  @HttpCode(200)
  fromLibrary(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() request: UseFormRequest,
  ): Promise<SavedView> {
    return this.forms.useFromLibrary(me, id, request);
  }
}
