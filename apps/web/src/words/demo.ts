import { sentences } from './say.js';

export const say = sentences('demo', {
  instructors: 'Instructors',
  assistants: 'Assistants',
  students: 'Students',
  saltCircleDemo: 'Salt Circle: the demo',
  everybodyAndEverythingHereIs:
    'Everybody and everything here is made up. Step into a person with one press; the clock in the bar moves the demo’s time. <link>Mail of the demo</link>',
  thereIsNoDemoHere: 'There is no demo here.',
  peopleOfDemo: 'the people of the demo',
});
