import { Module } from '@nestjs/common';
import { AccountsController } from './accounts.controller.js';
import { SignInService } from './sign-in.service.js';

@Module({
  controllers: [AccountsController],
  providers: [SignInService],
})
export class AccountsModule {}
