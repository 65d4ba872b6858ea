import { sentences } from '@salt-circle/core';

export const say = sentences('server.courses', {
  isNotTimeZoneChoose: '“{timeZone}” is not a time zone. Choose one from the list.',
  endsBeforeItBeginsSwap: '“{title}” ends ({to}) before it begins ({from}). Swap the two days.',
});
