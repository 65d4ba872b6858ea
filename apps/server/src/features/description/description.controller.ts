import { Controller, Get } from '@nestjs/common';
import type { OpenAPIObject } from '@nestjs/swagger';
import { Description } from './description.service.js';

@Controller('openapi.json')
export class DescriptionController {
  constructor(private readonly description: Description) {}

  /** For whoever writes scripts: it says nothing that the program does not say by itself, but not to whom nobody knows. */
  @Get()
  document(): OpenAPIObject {
    return this.description.document();
  }
}
