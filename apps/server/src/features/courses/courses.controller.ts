import { Body, Controller, Get, Param, Post, Put } from '@nestjs/common';
import { CourseSettingsRequest, CreateCourseRequest, type CourseCard, type CourseView } from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { CoursesService } from './courses.service.js';

@Controller('courses')
export class CoursesController {
  constructor(private readonly courses: CoursesService) {}

  @Get()
  list(@Me() me: CurrentUser): Promise<CourseCard[]> {
    return this.courses.list(me);
  }

  @Post()
  create(@Me() me: CurrentUser, @Body() request: CreateCourseRequest): Promise<{ id: string }> {
    return this.courses.create(me, request);
  }

  @Get(':courseId')
  one(@Me() me: CurrentUser, @Param('courseId') courseId: string): Promise<CourseView> {
    return this.courses.one(me, courseId);
  }

  @Put(':courseId')
  saveSettings(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Body() request: CourseSettingsRequest,
  ): Promise<CourseView> {
    return this.courses.saveSettings(me, courseId, request);
  }
}
