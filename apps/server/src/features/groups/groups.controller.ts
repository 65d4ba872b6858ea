import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import {
  DivisionRequest,
  GroupImportRequest,
  GroupSetRequest,
  MoveMemberRequest,
  type GroupImportPreview,
  type GroupsView,
} from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { FillingService } from './filling.service.js';
import { GroupSetsService } from './group-sets.service.js';
import { GroupsService } from './groups.service.js';

@Controller('courses/:courseId/group-sets')
export class GroupsController {
  constructor(
    private readonly sets: GroupSetsService,
    private readonly groups: GroupsService,
    private readonly filling: FillingService,
  ) {}

  @Get()
  list(@Me() me: CurrentUser, @Param('courseId') courseId: string): Promise<GroupsView> {
    return this.sets.list(me, courseId);
  }

  @Post()
  addSet(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Body() { title }: GroupSetRequest,
  ): Promise<{ id: string }> {
    return this.sets.addSet(me, courseId, title);
  }

  @Put(':setId')
  @HttpCode(204)
  renameSet(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Param('setId') setId: string,
    @Body() { title }: GroupSetRequest,
  ): Promise<void> {
    return this.sets.renameSet(me, courseId, setId, title);
  }

  @Delete(':setId')
  @HttpCode(204)
  removeSet(@Me() me: CurrentUser, @Param('courseId') courseId: string, @Param('setId') setId: string): Promise<void> {
    return this.sets.removeSet(me, courseId, setId);
  }

  @Post(':setId/division')
  @HttpCode(204)
  divide(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Param('setId') setId: string,
    @Body() request: DivisionRequest,
  ): Promise<void> {
    return this.filling.divide(me, courseId, setId, request);
  }

  @Post(':setId/import')
  @HttpCode(200)
  import(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Param('setId') setId: string,
    @Body() request: GroupImportRequest,
  ): Promise<GroupImportPreview> {
    return this.filling.import(me, courseId, setId, request);
  }

  @Post(':setId/groups')
  addGroup(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Param('setId') setId: string,
    @Body() { title }: GroupSetRequest,
  ): Promise<{ id: string }> {
    return this.groups.addGroup(me, courseId, setId, title);
  }

  @Put(':setId/groups/:groupId')
  @HttpCode(204)
  renameGroup(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Param('setId') setId: string,
    @Param('groupId') groupId: string,
    @Body() { title }: GroupSetRequest,
  ): Promise<void> {
    return this.groups.renameGroup(me, courseId, setId, groupId, title);
  }

  @Delete(':setId/groups/:groupId')
  @HttpCode(204)
  removeGroup(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Param('setId') setId: string,
    @Param('groupId') groupId: string,
  ): Promise<void> {
    return this.groups.removeGroup(me, courseId, setId, groupId);
  }

  @Put(':setId/members/:enrolmentId')
  @HttpCode(204)
  moveMember(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Param('setId') setId: string,
    @Param('enrolmentId') enrolmentId: string,
    @Body() request: MoveMemberRequest,
  ): Promise<void> {
    return this.groups.moveMember(me, courseId, setId, enrolmentId, request);
  }
}
