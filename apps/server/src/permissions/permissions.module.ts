import { Global, Module } from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { Access } from './access.js';
import { AccessTokens } from '../auth/access-tokens.js';
import { RecentPassword } from '../auth/recent-password.service.js';
import { ViewAsService } from '../auth/view-as.service.js';
import { SessionGuard } from '../auth/session.guard.js';
import { SessionService } from '../auth/session.service.js';

/** The one gate: who asks, and where they stand. Every feature may ask it. */
@Global()
@Module({
  providers: [
    ...[Access, AccessTokens, SessionService, ViewAsService, RecentPassword],
    { provide: APP_GUARD, useClass: SessionGuard },
  ],
  exports: [Access, AccessTokens, SessionService, RecentPassword],
})
export class PermissionsModule {}
