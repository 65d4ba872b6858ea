import { Module } from '@nestjs/common';
import { AccountsModule } from '../accounts/accounts.module.js';
import { Invitations } from './invitations.service.js';
import { InvitationsController, OwnPlacesController, PeopleController } from './people.controller.js';
import { PeopleService } from './people.service.js';
import { RosterService } from './roster.service.js';

@Module({
  imports: [AccountsModule],
  controllers: [InvitationsController, OwnPlacesController, PeopleController],
  providers: [Invitations, PeopleService, RosterService],
  exports: [Invitations],
})
export class PeopleModule {}
