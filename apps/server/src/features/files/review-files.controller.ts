import { Body, Controller, Delete, HttpCode, Param, Post } from '@nestjs/common';
import { ReviewFileRequest, type ReviewFileCard } from '@salt-circle/contracts';
import type { Asker } from '../../access/seeing.js';
import { Me } from '../../access/session.guard.js';
import { ReviewFiles } from './review-files.service.js';

/** What has been uploaded goes with a note or an answer. */
@Controller('reviews/:reviewId/files')
export class ReviewFilesController {
  constructor(private readonly files: ReviewFiles) {}

  @Post()
  add(@Me() me: Asker, @Param('reviewId') id: string, @Body() request: ReviewFileRequest): Promise<ReviewFileCard[]> {
    return this.files.add(me, id, request);
  }

  @Delete(':fileId')
  @HttpCode(204)
  remove(@Me() me: Asker, @Param('reviewId') id: string, @Param('fileId') fileId: string): Promise<void> {
    return this.files.remove(me, id, fileId);
  }
}
