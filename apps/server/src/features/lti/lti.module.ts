import { Module } from '@nestjs/common';
import { AccountsModule } from '../accounts/accounts.module.js';
import { CoursesModule } from '../courses/courses.module.js';
import { GradesModule } from '../grades/grades.module.js';
import { PeopleModule } from '../people/people.module.js';
import { Arrivals } from './launch/arrivals.service.js';
import { LtiClient } from './platforms/lti-client.service.js';
import { LtiPeople } from './people/lti-people.service.js';
import { CoursePlatformController, GradebookController } from './lti.controller.js';
import { PlatformsController } from './platforms/platforms.controller.js';
import { Platforms } from './platforms/platforms.service.js';
import { Columns } from './gradebook/columns.service.js';
import { Gradebook } from './gradebook/gradebook.service.js';
import { Gradebooks } from './gradebook/gradebooks.service.js';
import { LtiKeys } from './platforms/keys.service.js';
import { ArrivalsController, LaunchController, ProofsController } from './launch/launch.controller.js';
import { LaunchService } from './launch/launch.service.js';
import { LtiNights } from './people/nightly.service.js';
import { Proofs } from './launch/proofs.service.js';
import { Registration } from './platforms/registration.service.js';

@Module({
  imports: [AccountsModule, CoursesModule, GradesModule, PeopleModule],
  controllers: [
    LaunchController,
    ArrivalsController,
    ProofsController,
    PlatformsController,
    CoursePlatformController,
    GradebookController,
  ],
  providers: [
    Arrivals,
    LtiClient,
    Platforms,
    LtiKeys,
    LtiNights,
    LtiPeople,
    Columns,
    Gradebook,
    Gradebooks,
    LaunchService,
    Proofs,
    Registration,
  ],
  exports: [Platforms, LtiKeys],
})
export class LtiModule {}
