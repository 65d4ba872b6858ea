import { sentences } from './say.js';

export const say = sentences('description', {
  whatScriptsCanCall: 'What scripts can call',
  description: 'the description',
  sameAsOpenapi: '{description} The same as <link>OpenAPI {openapi}</link>.',
  findRoute: 'Find a route',
  of: '{found} of {operations}',
  body: 'Body',
  answer: 'Answer',
  inMayBeLeftOut: '{name} in {in}, may be left out',
  in: '{name} in {in}',
  several: '{name}, several',
});
