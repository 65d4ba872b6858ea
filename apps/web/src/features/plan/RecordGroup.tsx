import { Link } from 'react-router';
import { say } from '../../words/plan.js';
import { SettingsGroup } from './SettingsGroup.js';

/** The way to who did what, when. */
export function RecordGroup() {
  return (
    <SettingsGroup title={say('record')} summary={say('whoDidWhatInThis')}>
      <Link to="../activity">{say('activityOpen')}</Link>
    </SettingsGroup>
  );
}
