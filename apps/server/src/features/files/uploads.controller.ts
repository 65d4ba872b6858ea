import { Body, Controller, Delete, Get, Head, HttpCode, Param, Patch, Post, Req, Res } from '@nestjs/common';
import {
  AttachRequest,
  UploadedRequest,
  type AttachmentCard,
  type OpenUploadView,
  type PartView,
} from '@salt-circle/contracts';
import type { Request, Response } from 'express';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { Attachments } from './attachments.service.js';
import { Intake } from './draft-intake.service.js';
import { PictureIntake } from './picture-intake.service.js';
import { purposeFrom, Uploads } from './uploads.service.js';
import { UploadPolicy } from './upload-policy.service.js';

/** What the protocol needs; reading an upload back is not among it. */
@Controller('uploads')
export class UploadsController {
  constructor(
    private readonly uploads: Uploads,
    private readonly policy: UploadPolicy,
  ) {}

  @Post()
  async begin(@Me() me: CurrentUser, @Req() request: Request, @Res() response: Response): Promise<void> {
    const size = Number(request.headers['upload-length'] ?? Number.NaN);
    await this.policy.assertNew(me, purposeFrom(String(request.headers['upload-metadata'] ?? '')), size);
    await this.uploads.handle(me, null, request, response);
  }

  /** What the one who asks has begun to send, and has not put into a draft. */
  @Get()
  list(@Me() me: CurrentUser): Promise<OpenUploadView[]> {
    return this.policy.openUploads(me);
  }

  @Head(':id')
  look(
    @Me() me: CurrentUser,
    @Param('id') id: string,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    return this.#goOn(me, id, request, response);
  }

  @Patch(':id')
  more(
    @Me() me: CurrentUser,
    @Param('id') id: string,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    return this.#goOn(me, id, request, response);
  }

  @Delete(':id')
  cancel(
    @Me() me: CurrentUser,
    @Param('id') id: string,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    return this.#goOn(me, id, request, response);
  }

  async #goOn(me: CurrentUser, id: string, request: Request, response: Response): Promise<void> {
    await this.uploads.owned(me, id);
    await this.uploads.handle(me, id, request, response);
  }
}

/** What has been uploaded becomes part of a draft. */
@Controller('exchanges/:exchangeId/draft')
export class IntakeController {
  constructor(
    private readonly intake: Intake,
    private readonly pictures: PictureIntake,
  ) {}

  @Post('files')
  attach(@Me() me: CurrentUser, @Param('exchangeId') id: string, @Body() request: AttachRequest): Promise<PartView> {
    return this.intake.attach(me, id, request);
  }

  @Post('pictures')
  picture(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() { uploadId }: UploadedRequest,
  ): Promise<{ address: string }> {
    return this.pictures.take(me, id, uploadId);
  }
}

/** What has been uploaded goes with the brief or the guide. */
@Controller('exchanges/:exchangeId/attachments')
export class AttachmentsController {
  constructor(private readonly attachments: Attachments) {}

  @Post()
  add(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() { uploadId }: UploadedRequest,
  ): Promise<AttachmentCard[]> {
    return this.attachments.add(me, id, uploadId);
  }

  @Delete(':attachmentId')
  @HttpCode(204)
  remove(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('attachmentId') attachmentId: string,
  ): Promise<void> {
    return this.attachments.remove(me, id, attachmentId);
  }
}
