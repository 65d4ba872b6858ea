import { Module } from '@nestjs/common';
import { DemoController } from './demo.controller.js';

/** Part of the application in demo mode only. */
@Module({ controllers: [DemoController] })
export class DemoModule {}
