import { Module } from '@nestjs/common';
import { AccountsModule } from '../accounts/accounts.module.js';
import { CoursesModule } from '../courses/courses.module.js';
import { GradesModule } from '../grades/grades.module.js';
import { PeopleModule } from '../people/people.module.js';
import { Arrivals } from './launch/arrivals.service.js';
import { CampusClient } from './platforms/campus-client.service.js';
import { CampusPeople } from './people/campus-people.service.js';
import { CourseCampusController, GradebookController } from './campus.controller.js';
import { CampusesController } from './platforms/campuses.controller.js';
import { Campuses } from './platforms/campuses.service.js';
import { Columns } from './gradebook/columns.service.js';
import { Gradebook } from './gradebook/gradebook.service.js';
import { Gradebooks } from './gradebook/gradebooks.service.js';
import { CampusKeys } from './platforms/keys.service.js';
import { ArrivalsController, LaunchController, ProofsController } from './launch/launch.controller.js';
import { LaunchService } from './launch/launch.service.js';
import { CampusNights } from './people/nightly.service.js';
import { Proofs } from './launch/proofs.service.js';
import { Registration } from './platforms/registration.service.js';

@Module({
  imports: [AccountsModule, CoursesModule, GradesModule, PeopleModule],
  controllers: [
    LaunchController,
    ArrivalsController,
    ProofsController,
    CampusesController,
    CourseCampusController,
    GradebookController,
  ],
  providers: [
    Arrivals,
    CampusClient,
    Campuses,
    CampusKeys,
    CampusNights,
    CampusPeople,
    Columns,
    Gradebook,
    Gradebooks,
    LaunchService,
    Proofs,
    Registration,
  ],
  exports: [Campuses, CampusKeys],
})
export class CampusModule {}
