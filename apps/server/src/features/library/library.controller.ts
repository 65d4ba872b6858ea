import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put, Res } from '@nestjs/common';
import {
  FormFileRequest,
  LibraryAddRequest,
  LibraryCopyRequest,
  LibraryFormRequest,
  ShorthandRequest,
  type FormImportView,
  type LibraryFormView,
  type LibraryView,
  type SavedView,
  type ShorthandView,
} from '@salt-circle/contracts';
import type { Response } from 'express';
import type { CurrentUser } from '../../auth/view-as.js';
import { refusal } from '../../platform/problems/sentences.js';
import { Me } from '../../auth/session.guard.js';
import { FormFilesService, type FormFormat } from './form-files.service.js';
import { LibraryService } from './library.service.js';

const FORMATS: readonly FormFormat[] = ['json', 'case', 'csv'];

@Controller('courses/:courseId/library')
export class LibraryController {
  constructor(
    private readonly library: LibraryService,
    private readonly files: FormFilesService,
  ) {}

  @Get()
  list(@Me() me: CurrentUser, @Param('courseId') courseId: string): Promise<LibraryView> {
    return this.library.list(me, courseId);
  }

  @Post()
  add(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Body() request: LibraryAddRequest,
  ): Promise<{ id: string }> {
    return this.library.add(me, courseId, request);
  }

  @Post('form-files')
  @HttpCode(200)
  read(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Body() request: FormFileRequest,
  ): Promise<FormImportView> {
    return this.files.read(me, courseId, request);
  }

  @Get('forms/:id')
  form(@Me() me: CurrentUser, @Param('courseId') courseId: string, @Param('id') id: string): Promise<LibraryFormView> {
    return this.library.form(me, courseId, id);
  }

  @Put('forms/:id')
  saveForm(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Param('id') id: string,
    @Body() request: LibraryFormRequest,
  ): Promise<SavedView> {
    return this.library.saveForm(me, courseId, id, request);
  }

  @Get('forms/:id/files/:format')
  async write(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Param('id') id: string,
    @Param('format') format: string,
    @Res() response: Response,
  ): Promise<void> {
    const known = FORMATS.find((one) => one === format);
    if (known === undefined) throw refusal('unknown');
    const { name, type, text } = await this.files.write(me, courseId, id, known);
    response.type(type).attachment(name).send(text);
  }

  @Get('shorthand/:id')
  shorthand(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Param('id') id: string,
  ): Promise<ShorthandView> {
    return this.library.shorthand(me, courseId, id);
  }

  @Put('shorthand/:id')
  saveShorthand(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Param('id') id: string,
    @Body() request: ShorthandRequest,
  ): Promise<SavedView> {
    return this.library.saveShorthand(me, courseId, id, request);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Me() me: CurrentUser, @Param('courseId') courseId: string, @Param('id') id: string): Promise<void> {
    return this.library.remove(me, courseId, id);
  }

  @Post(':id/copies')
  copy(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Param('id') id: string,
    @Body() { courseId: target }: LibraryCopyRequest,
  ): Promise<{ id: string }> {
    return this.library.copy(me, courseId, id, target);
  }
}
