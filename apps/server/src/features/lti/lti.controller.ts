import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put, Query } from '@nestjs/common';
import {
  PlatformPeopleRequest,
  CoursePlatformRequest,
  GradebookDecisionRequest,
  GradebookQuery,
  GradebookRequest,
  type CoursePlatformView,
  type GradebookView,
  type RosterApplied,
  type RosterPreview,
} from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { LtiFault } from './platforms/lti-fault.js';
import { LtiPeople } from './people/lti-people.service.js';
import { Gradebook } from './gradebook/gradebook.service.js';

/** What a platform did not do, as an answer. */
async function told<T>(work: Promise<T>): Promise<T> {
  try {
    return await work;
  } catch (error) {
    throw error instanceof LtiFault ? error.asProblem() : error;
  }
}

@Controller('courses/:courseId/platform')
export class CoursePlatformController {
  constructor(private readonly people: LtiPeople) {}

  @Get()
  one(@Me() me: CurrentUser, @Param('courseId') courseId: string): Promise<CoursePlatformView> {
    return this.people.one(me, courseId);
  }

  @Put()
  @HttpCode(204)
  set(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Body() { nightly }: CoursePlatformRequest,
  ): Promise<void> {
    return this.people.setNightly(me, courseId, nightly);
  }

  @Delete()
  @HttpCode(204)
  unlink(@Me() me: CurrentUser, @Param('courseId') courseId: string): Promise<void> {
    return this.people.unlink(me, courseId);
  }

  @Post('people/preview')
  @HttpCode(200)
  preview(@Me() me: CurrentUser, @Param('courseId') courseId: string): Promise<RosterPreview> {
    return told(this.people.preview(me, courseId));
  }

  @Post('people')
  @HttpCode(200)
  apply(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Body() request: PlatformPeopleRequest,
  ): Promise<RosterApplied> {
    return told(this.people.apply(me, courseId, request));
  }
}

@Controller('exchanges/:exchangeId/gradebook')
export class GradebookController {
  constructor(private readonly gradebook: Gradebook) {}

  @Get()
  one(
    @Me() me: CurrentUser,
    @Param('exchangeId') exchangeId: string,
    @Query() { state }: GradebookQuery,
  ): Promise<GradebookView> {
    return this.gradebook.one(me, exchangeId, state);
  }

  @Put()
  @HttpCode(204)
  set(
    @Me() me: CurrentUser,
    @Param('exchangeId') exchangeId: string,
    @Body() request: GradebookRequest,
  ): Promise<void> {
    return told(this.gradebook.set(me, exchangeId, request));
  }

  @Post('send')
  @HttpCode(204)
  sendNow(@Me() me: CurrentUser, @Param('exchangeId') exchangeId: string): Promise<void> {
    return told(this.gradebook.sendNow(me, exchangeId));
  }

  @Post('decisions')
  @HttpCode(204)
  decide(
    @Me() me: CurrentUser,
    @Param('exchangeId') exchangeId: string,
    @Body() request: GradebookDecisionRequest,
  ): Promise<void> {
    return told(this.gradebook.decide(me, exchangeId, request));
  }
}
