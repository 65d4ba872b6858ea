import { MoreThan, type EntityManager } from 'typeorm';
import { PasswordLink, type Person } from '../../model/person.js';
import type { Clock } from '../../platform/clock/clock.js';
import type { MailSettings } from '../../platform/config/settings.js';
import { hashOf } from '../../platform/ids/hash-of.js';
import type { Ids } from '../../platform/ids/ids.js';
import { queueMail } from '../../platform/mail/queue-mail.js';
import { passwordLetter } from './letters.js';

/** How long a link can be used, in milliseconds. */
export const PASSWORD_LINK_LASTS = 3_600_000;
/** Links to one account within that time: more would be a nuisance in the mailbox of somebody who asked for none. */
const MOST_LINKS = 3;

export interface LinkMaking {
  readonly ids: Ids;
  readonly clock: Clock;
  readonly mail: MailSettings;
}

/** A link for a new password, and the mail with it. @returns the link; null for no account, or when there have been enough of them */
export async function makePasswordLink(
  manager: EntityManager,
  { ids, clock, mail }: LinkMaking,
  { id: personId, email }: Pick<Person, 'id' | 'email'>,
): Promise<string | null> {
  const now = clock.real();
  const recent = await manager.countBy(PasswordLink, { personId, createdAt: MoreThan(now - PASSWORD_LINK_LASTS) });
  if (recent >= MOST_LINKS || email === null) return null;
  const token = ids.token();
  await manager.insert(PasswordLink, { tokenHash: hashOf(token), personId, createdAt: now });
  const link = `${mail.publicUrl}/password/${token}`;
  await queueMail(manager, ids, mail, clock.now(), [{ address: email, ...passwordLetter(link) }]);
  return link;
}
