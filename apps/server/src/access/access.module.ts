import { Global, Module } from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { Access } from './access.js';
import { AccessTokens } from './access-tokens.js';
import { RecentPassword } from './recent-password.service.js';
import { SeeingService } from './seeing.service.js';
import { SessionGuard } from './session.guard.js';
import { SessionService } from './session.service.js';

/** The one gate: who asks, and where they stand. Every feature may ask it. */
@Global()
@Module({
  providers: [
    ...[Access, AccessTokens, SessionService, SeeingService, RecentPassword],
    { provide: APP_GUARD, useClass: SessionGuard },
  ],
  exports: [Access, AccessTokens, SessionService, RecentPassword],
})
export class AccessModule {}
