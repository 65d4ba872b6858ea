import { Body, Controller, Get, Param, Post, Put } from '@nestjs/common';
import { CourseSettingsRequest, CreateCourseRequest, type CourseCard, type CourseView } from '@salt-circle/contracts';
import type { Asker } from '../../access/seeing.js';
import { Me } from '../../access/session.guard.js';
import { CoursesService } from './courses.service.js';

@Controller('courses')
export class CoursesController {
  constructor(private readonly courses: CoursesService) {}

  @Get()
  list(@Me() me: Asker): Promise<CourseCard[]> {
    return this.courses.list(me);
  }

  @Post()
  create(@Me() me: Asker, @Body() request: CreateCourseRequest): Promise<{ id: string }> {
    return this.courses.create(me, request);
  }

  @Get(':courseId')
  one(@Me() me: Asker, @Param('courseId') courseId: string): Promise<CourseView> {
    return this.courses.one(me, courseId);
  }

  @Put(':courseId')
  saveSettings(
    @Me() me: Asker,
    @Param('courseId') courseId: string,
    @Body() request: CourseSettingsRequest,
  ): Promise<CourseView> {
    return this.courses.saveSettings(me, courseId, request);
  }
}
