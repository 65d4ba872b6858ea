import { Body, Controller, Delete, HttpCode, Param, Post } from '@nestjs/common';
import { ReviewFileRequest, type ReviewFileCard } from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { ReviewFiles } from './review-files.service.js';

/** What has been uploaded goes with a note or an answer. */
@Controller('reviews/:reviewId/files')
export class ReviewFilesController {
  constructor(private readonly files: ReviewFiles) {}

  @Post()
  add(
    @Me() me: CurrentUser,
    @Param('reviewId') id: string,
    @Body() request: ReviewFileRequest,
  ): Promise<ReviewFileCard[]> {
    return this.files.add(me, id, request);
  }

  @Delete(':fileId')
  @HttpCode(204)
  remove(@Me() me: CurrentUser, @Param('reviewId') id: string, @Param('fileId') fileId: string): Promise<void> {
    return this.files.remove(me, id, fileId);
  }
}
