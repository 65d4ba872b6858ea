import { All, Controller, Param, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import { Person } from '../accounts/entities.js';
import { refusal } from '../problems/sentences.js';
import { Me } from '../security/session.guard.js';
import { Intake } from './intake.service.js';
import { purposeFrom, Uploads } from './uploads.js';

/** What the protocol needs; reading an upload back is not among it. */
const METHODS = new Set(['POST', 'HEAD', 'PATCH', 'DELETE']);

@Controller('uploads')
export class UploadsController {
  constructor(
    private readonly uploads: Uploads,
    private readonly intake: Intake,
  ) {}

  @All()
  async begin(@Me() me: Person, @Req() request: Request, @Res() response: Response): Promise<void> {
    if (request.method !== 'POST') throw refusal('unknown');
    const size = Number(request.headers['upload-length'] ?? Number.NaN);
    await this.intake.assertWelcome(me, purposeFrom(String(request.headers['upload-metadata'] ?? '')), size);
    await this.uploads.handle(me, request, response);
  }

  @All(':id')
  async goOn(
    @Me() me: Person,
    @Param('id') id: string,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    if (!METHODS.has(request.method) || request.method === 'POST') throw refusal('unknown');
    await this.uploads.owned(me, id);
    await this.uploads.handle(me, request, response);
  }
}
