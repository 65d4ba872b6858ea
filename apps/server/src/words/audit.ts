import { sentences } from '@salt-circle/core';

/** The audit log as a file. */
export const say = sentences('server.audit', {
  saltCircle: 'Salt Circle',
  someoneWhoHasLeft: 'someone who has left',
  csvName: 'activity-log.csv',
  csvWhen: 'When (UTC)',
  csvWho: 'Who',
  csvAction: 'Action',
  csvAbout: 'About',
  csvChange: 'Change',
  csvReason: 'Reason',
});
