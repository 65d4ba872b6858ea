import { Module } from '@nestjs/common';
import { AccountService } from './account.service.js';
import { AccountController, LinksController, SessionController } from './accounts.controller.js';
import { AddressChanges } from './address-changes.service.js';
import { PasswordLinks } from './password-links.service.js';
import { SignInService } from './sign-in.service.js';
import { Tokens } from './tokens.service.js';

@Module({
  controllers: [SessionController, LinksController, AccountController],
  providers: [AccountService, AddressChanges, PasswordLinks, SignInService, Tokens],
  exports: [AccountService, PasswordLinks, SignInService],
})
export class AccountsModule {}
