import type { Letter } from '../../platform/mail/queue-mail.js';

/** Mail of an account is the person's own: it belongs to no course, and nobody of the staff can read it. */
type OwnLetter = Omit<Letter, 'address'>;

const OWN = { courseId: null, sealed: true } as const;

/** @param secret the link */
export function passwordLetter(secret: string): OwnLetter {
  return {
    ...OWN,
    subject: 'A new password for Salt Circle',
    text:
      `Somebody, probably you, has asked for a new password for your account on Salt Circle.\n\nChoose it here:\n${secret}\n\n` +
      'The link can be used once, within an hour. If it was not you, leave it: nothing changes.\n',
    secret,
  };
}

export function passwordChanged(publicUrl: string): OwnLetter {
  return {
    ...OWN,
    subject: 'Your password for Salt Circle has been changed',
    text:
      'The password of your account on Salt Circle has been changed, and all other browsers have been signed out.\n\n' +
      `If it was not you, choose a new one at once:\n${publicUrl}/forgotten\n`,
  };
}

export function addressLetter(secret: string, { from, to }: { from: string; to: string }): OwnLetter {
  return {
    ...OWN,
    subject: 'Your new address for Salt Circle',
    text:
      `Somebody, probably you, wants to sign in to Salt Circle with ${to} instead of ${from} from now on. ` +
      'Both addresses have been sent a link; the change is made when both have been used.\n\n' +
      `Confirm it here:\n${secret}\n\nThe link can be used once, within a day. If it was not you, leave it, and change your password.\n`,
    secret,
  };
}
