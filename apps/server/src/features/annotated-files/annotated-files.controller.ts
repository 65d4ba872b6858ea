import { Body, Controller, Get, HttpCode, Param, Post, Query, StreamableFile } from '@nestjs/common';
import { BringInRequest, BringRequest, type BroughtInView, type BroughtView } from '@salt-circle/contracts';
import contentDisposition from 'content-disposition';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { AnnotatedFileImport } from './annotated-file-import.service.js';
import { AnnotatedDrafts, type AnnotatedSource } from './annotated-drafts.service.js';
import { AnnotatedFiles, type MadeFile } from './annotated-files.service.js';

const DOCX = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';
const JSON_LD = 'application/ld+json; profile="http://www.w3.org/ns/anno.jsonld"';

function sent({ name, bytes }: MadeFile, type: string): StreamableFile {
  return new StreamableFile(bytes, { type, disposition: contentDisposition(name) });
}

function annotations(text: string): StreamableFile {
  return sent({ name: 'notes.jsonld', bytes: Buffer.from(text) }, JSON_LD);
}

/** What was written about drafts, to take along: for its author, for staff, and of a review for its reviewer, who brings it back. */
@Controller()
export class AnnotatedFilesController {
  constructor(
    private readonly drafts: AnnotatedDrafts,
    private readonly files: AnnotatedFiles,
    private readonly back: AnnotatedFileImport,
  ) {}

  @Get('exchanges/:exchangeId/feedback/draft.docx')
  async ownDocument(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Query('version') version?: string,
  ): Promise<StreamableFile> {
    return sent(await this.files.document(await this.drafts.own(me, id), version), DOCX);
  }

  @Get('exchanges/:exchangeId/feedback/notes.jsonld')
  async ownNotes(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<StreamableFile> {
    return this.#notes(await this.drafts.own(me, id));
  }

  @Get('exchanges/:exchangeId/feedback/parts/:partId/notes.pdf')
  async ownPages(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('partId') partId: string,
  ): Promise<StreamableFile> {
    return sent(await this.files.pages(me, await this.drafts.own(me, id), partId), 'application/pdf');
  }

  @Get('exchanges/:exchangeId/notes.jsonld')
  async allNotes(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<StreamableFile> {
    return annotations(await this.files.ofExchange(me, id));
  }

  @Get('exchanges/:exchangeId/drafts/:draftId/feedback/draft.docx')
  async document(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('draftId') draftId: string,
    @Query('version') version?: string,
  ): Promise<StreamableFile> {
    return sent(await this.files.document(await this.drafts.ofDraft(me, id, draftId), version), DOCX);
  }

  @Get('exchanges/:exchangeId/drafts/:draftId/feedback/notes.jsonld')
  async notes(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('draftId') draftId: string,
  ): Promise<StreamableFile> {
    return this.#notes(await this.drafts.ofDraft(me, id, draftId));
  }

  @Get('exchanges/:exchangeId/drafts/:draftId/feedback/parts/:partId/notes.pdf')
  async pages(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('draftId') draftId: string,
    @Param('partId') partId: string,
  ): Promise<StreamableFile> {
    return sent(await this.files.pages(me, await this.drafts.ofDraft(me, id, draftId), partId), 'application/pdf');
  }

  @Get('reviews/:reviewId/draft.docx')
  async reviewDocument(@Me() me: CurrentUser, @Param('reviewId') reviewId: string): Promise<StreamableFile> {
    return sent(await this.files.document(await this.drafts.ofReview(me, reviewId)), DOCX);
  }

  @Get('reviews/:reviewId/notes.jsonld')
  async reviewNotes(@Me() me: CurrentUser, @Param('reviewId') reviewId: string): Promise<StreamableFile> {
    return this.#notes(await this.drafts.ofReview(me, reviewId), reviewId);
  }

  @Get('reviews/:reviewId/parts/:partId/notes.pdf')
  async reviewPages(
    @Me() me: CurrentUser,
    @Param('reviewId') reviewId: string,
    @Param('partId') partId: string,
  ): Promise<StreamableFile> {
    return sent(await this.files.pages(me, await this.drafts.ofReview(me, reviewId), partId), 'application/pdf');
  }

  /** What a file that was marked elsewhere would add. */
  @Post('reviews/:reviewId/marked/preview')
  @HttpCode(200)
  preview(@Me() me: CurrentUser, @Param('reviewId') id: string, @Body() request: BringRequest): Promise<BroughtView> {
    return this.back.preview(me, id, request);
  }

  @Post('reviews/:reviewId/marked')
  @HttpCode(200)
  add(@Me() me: CurrentUser, @Param('reviewId') id: string, @Body() request: BringInRequest): Promise<BroughtInView> {
    return this.back.add(me, id, request);
  }

  #notes(versions: readonly AnnotatedSource[], id = versions[0]?.draft.draftId ?? ''): StreamableFile {
    const drafts = versions.map(({ draft }) => draft);
    return annotations(this.files.annotations(id, drafts));
  }
}
