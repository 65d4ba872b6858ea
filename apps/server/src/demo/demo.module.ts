import { Module } from '@nestjs/common';
import { MailModule } from '../features/mail/mail.module.js';
import { DemoController } from './demo.controller.js';

/** Part of the application in demo mode only. */
@Module({ imports: [MailModule], controllers: [DemoController] })
export class DemoModule {}
