import { Module } from '@nestjs/common';
import { EarlierReviews } from './earlier-reviews.service.js';
import { RoundsController } from './rounds.controller.js';
import { Rounds } from './rounds.service.js';

@Module({ controllers: [RoundsController], providers: [EarlierReviews, Rounds] })
export class RoundsModule {}
