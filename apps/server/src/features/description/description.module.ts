import { Module } from '@nestjs/common';
import { DescriptionController } from './description.controller.js';
import { Description } from './description.service.js';

@Module({ controllers: [DescriptionController], providers: [Description] })
export class DescriptionModule {}
