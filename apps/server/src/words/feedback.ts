import { sentences } from '@salt-circle/core';

export const say = sentences('server.feedback', {
  feedbackOnYourDraftFor: '{course}: feedback on your draft for “{exchange}”',
  ofYourDraftForCan:
    '{count, plural, one {One review of your draft for “{exchange}” ({course}) can be read now.} other {# reviews of your draft for “{exchange}” ({course}) can be read now.}}',
});
