import type { Letter } from '../../platform/mail/queue-mail.js';
import { say } from '../../words/accounts.js';

/** Mail of an account is the person's own: it belongs to no course, and nobody of the staff can read it. */
type OwnLetter = Omit<Letter, 'address'>;

const OWN = { courseId: null } as const;

/** @param secret the link */
export function passwordLetter(secret: string): OwnLetter {
  return {
    ...OWN,
    kind: 'password-link',
    subject: say('newPasswordForSaltCircle'),
    text: say('somebodyProbablyYouHasAsked', { secret }),
    secret,
  };
}

export function passwordChanged(publicUrl: string): OwnLetter {
  return {
    ...OWN,
    kind: 'password-changed',
    subject: say('yourPasswordForSaltCircle'),
    text: say('passwordOfYourAccountOn', { publicUrl }),
  };
}

export function addressLetter(secret: string, { from, to }: { from: string; to: string }): OwnLetter {
  return {
    ...OWN,
    kind: 'address-change',
    subject: say('yourNewAddressForSalt'),
    text: say('somebodyProbablyYouWantsTo', { to, from, secret }),
    secret,
  };
}
