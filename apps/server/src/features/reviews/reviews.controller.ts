import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import {
  AnswerRequest,
  NoteParams,
  NoteRequest,
  ReopenRequest,
  SpentRequest,
  type AnswerView,
  type DeskView,
  type NoteView,
  type ReviewCard,
  type ReviewNamesView,
  type SubmitView,
} from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { ReviewNotes } from './review-notes.service.js';
import { ReviewNames } from './review-names.service.js';
import { ReviewsService } from './reviews.service.js';

@Controller()
export class ReviewsController {
  constructor(
    private readonly reviews: ReviewsService,
    private readonly notes: ReviewNotes,
    private readonly names: ReviewNames,
  ) {}

  @Get('exchanges/:exchangeId/reviews')
  mine(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<ReviewCard[]> {
    return this.reviews.mine(me, id);
  }

  @Get('reviews/:reviewId')
  desk(@Me() me: CurrentUser, @Param('reviewId') id: string): Promise<DeskView> {
    return this.reviews.desk(me, id);
  }

  @Get('reviews/:reviewId/names')
  namesIn(@Me() me: CurrentUser, @Param('reviewId') id: string): Promise<ReviewNamesView> {
    return this.names.inReview(me, id);
  }

  @Put('reviews/:reviewId/answers/:itemId')
  saveAnswer(
    @Me() me: CurrentUser,
    @Param('reviewId') id: string,
    @Param('itemId') itemId: string,
    @Body() request: AnswerRequest,
  ): Promise<AnswerView> {
    return this.reviews.saveAnswer(me, id, itemId, request);
  }

  @Put('reviews/:reviewId/notes/:noteId')
  saveNote(
    @Me() me: CurrentUser,
    @Param() { reviewId, noteId }: NoteParams,
    @Body() request: NoteRequest,
  ): Promise<NoteView> {
    return this.notes.save(me, reviewId, noteId, request);
  }

  @Delete('reviews/:reviewId/notes/:noteId')
  @HttpCode(204)
  deleteNote(@Me() me: CurrentUser, @Param() { reviewId, noteId }: NoteParams): Promise<void> {
    return this.notes.remove(me, reviewId, noteId);
  }

  @Post('reviews/:reviewId/time')
  @HttpCode(204)
  spend(@Me() me: CurrentUser, @Param('reviewId') id: string, @Body() request: SpentRequest): Promise<void> {
    return this.reviews.spend(me, id, request);
  }

  @Post('reviews/:reviewId/submit')
  @HttpCode(200)
  submit(@Me() me: CurrentUser, @Param('reviewId') id: string): Promise<SubmitView> {
    return this.reviews.submit(me, id);
  }

  @Post('reviews/:reviewId/reopen')
  @HttpCode(204)
  reopen(@Me() me: CurrentUser, @Param('reviewId') id: string, @Body() request: ReopenRequest): Promise<void> {
    return this.reviews.reopen(me, id, request);
  }
}
