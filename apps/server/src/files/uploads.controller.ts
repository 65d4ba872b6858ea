import { Controller, Delete, Head, Param, Patch, Post, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import { Person } from '../accounts/entities.js';
import { Me } from '../security/session.guard.js';
import { Intake } from './intake.service.js';
import { purposeFrom, Uploads } from './uploads.js';

/** What the protocol needs; reading an upload back is not among it. */
@Controller('uploads')
export class UploadsController {
  constructor(
    private readonly uploads: Uploads,
    private readonly intake: Intake,
  ) {}

  @Post()
  async begin(@Me() me: Person, @Req() request: Request, @Res() response: Response): Promise<void> {
    const size = Number(request.headers['upload-length'] ?? Number.NaN);
    await this.intake.assertWelcome(me, purposeFrom(String(request.headers['upload-metadata'] ?? '')), size);
    await this.uploads.handle(me, request, response);
  }

  @Head(':id')
  look(@Me() me: Person, @Param('id') id: string, @Req() request: Request, @Res() response: Response): Promise<void> {
    return this.#goOn(me, id, request, response);
  }

  @Patch(':id')
  more(@Me() me: Person, @Param('id') id: string, @Req() request: Request, @Res() response: Response): Promise<void> {
    return this.#goOn(me, id, request, response);
  }

  @Delete(':id')
  cancel(@Me() me: Person, @Param('id') id: string, @Req() request: Request, @Res() response: Response): Promise<void> {
    return this.#goOn(me, id, request, response);
  }

  async #goOn(me: Person, id: string, request: Request, response: Response): Promise<void> {
    await this.uploads.owned(me, id);
    await this.uploads.handle(me, request, response);
  }
}
