import { Global, Module } from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { Access } from './access.js';
import { SeeingService } from './seeing.service.js';
import { SessionGuard } from './session.guard.js';
import { SessionService } from './session.service.js';

/** The one gate: who asks, and where they stand. Every feature may ask it. */
@Global()
@Module({
  providers: [Access, SessionService, SeeingService, { provide: APP_GUARD, useClass: SessionGuard }],
  exports: [Access, SessionService],
})
export class AccessModule {}
