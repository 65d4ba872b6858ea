import { sentences } from '@salt-circle/core';

export const say = sentences('server.inbox', {
  saltCircleThatHappened:
    '{news, plural, one {Salt Circle: one thing that happened} other {Salt Circle: # things that happened}}',
  youGetOneLetterDay: 'You get one letter a day. You can change that in your account: {address}',
});
