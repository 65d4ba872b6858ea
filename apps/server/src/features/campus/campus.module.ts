import { Module } from '@nestjs/common';
import { AccountsModule } from '../accounts/accounts.module.js';
import { CoursesModule } from '../courses/courses.module.js';
import { GradesModule } from '../grades/grades.module.js';
import { PeopleModule } from '../people/people.module.js';
import { Arrivals } from './arrivals.service.js';
import { CampusClient } from './campus-client.service.js';
import { CampusPeople } from './campus-people.service.js';
import { CourseCampusController, GradebookController } from './campus.controller.js';
import { CampusesController } from './campuses.controller.js';
import { Campuses } from './campuses.service.js';
import { Columns } from './columns.service.js';
import { Gradebook } from './gradebook.service.js';
import { Gradebooks } from './gradebooks.service.js';
import { CampusKeys } from './keys.service.js';
import { ArrivalsController, LaunchController, ProofsController } from './launch.controller.js';
import { LaunchService } from './launch.service.js';
import { CampusNights } from './nightly.service.js';
import { Proofs } from './proofs.service.js';
import { Registration } from './registration.service.js';

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
