import { Module } from '@nestjs/common';
import { Invitations } from './invitations.js';
import { InvitationsController, PeopleController } from './people.controller.js';
import { PeopleService } from './people.service.js';
import { RosterService } from './roster.service.js';

@Module({
  controllers: [InvitationsController, PeopleController],
  providers: [Invitations, PeopleService, RosterService],
})
export class PeopleModule {}
