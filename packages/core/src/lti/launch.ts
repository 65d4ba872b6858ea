import { say } from '../words/defaults.js';
import type { Role } from '../visibility/facts.js';
import { CLAIM, LTI_VERSION } from './claims.js';
import { addressIn, fieldsOf, nameIn, textOf, textsOf, type Fields } from './reading.js';
import { courseRole } from './roles.js';

/** The services that a platform offers for a course; null where it offers none. */
export interface LtiServices {
  /** Names and Role Provisioning Services. */
  readonly membershipsUrl: string | null;
  /** Assignment and Grade Services: where columns are listed and made, and the one column of this link. */
  readonly columnsUrl: string | null;
  readonly columnUrl: string | null;
  readonly scopes: readonly string[];
}

/** What was asked for by somebody who puts a link to something of ours on a page of the platform. */
export interface Choosing {
  readonly returnUrl: string;
  /** To be sent back as it came. */
  readonly data: string | null;
  /** Whether the link may bring a column of the gradebook with it. */
  readonly acceptsColumn: boolean;
}

/** A launch whose signature has been found right, in our words. */
export interface Launch {
  readonly deploymentId: string;
  /** Of the person at the platform, for good. */
  readonly user: string;
  /** As far as the platform passes them on. */
  readonly name: string | null;
  readonly email: string | null;
  /** Of the registry of students, not on the platform alone. */
  readonly campusId: string | null;
  readonly role: Role | null;
  readonly course: { readonly id: string; readonly title: string };
  /** Null where something is chosen. */
  readonly linkId: string | null;
  /** What the link was made for, where it was chosen here. */
  readonly exchangeId: string | null;
  readonly services: LtiServices;
  readonly choosing: Choosing | null;
}

export type LaunchFault =
  | 'version'
  | 'message-unknown'
  | 'deployment-missing'
  | 'anonymous'
  | 'no-course'
  | 'no-link'
  | 'no-return'
  | 'links-not-accepted';

const MOST_NAME = 200;

/**
 * Reads the claims of an `LtiResourceLinkRequest` or `LtiDeepLinkingRequest` (LTI 1.3 core, sections 4.4 and 5.3; Deep Linking 2.0, section
 * 4.1). What is not asked for is left aside. Issuer, audience, times, nonce and signature are for whoever reads the token.
 */
export function readLaunch(claims: Fields): Launch | LaunchFault {
  if (claims[CLAIM.version] !== LTI_VERSION) return 'version';
  const type = claims[CLAIM.messageType];
  if (type !== 'LtiResourceLinkRequest' && type !== 'LtiDeepLinkingRequest') return 'message-unknown';
  const deploymentId = textOf(claims[CLAIM.deploymentId], 255);
  if (deploymentId === null) return 'deployment-missing';
  const user = textOf(claims['sub'], 255);
  if (user === null) return 'anonymous';
  const context = fieldsOf(claims[CLAIM.context]);
  const courseId = textOf(context?.['id'], 255);
  if (context === null || courseId === null) return 'no-course';
  const link = textOf(fieldsOf(claims[CLAIM.resourceLink])?.['id'], 255);
  if (type === 'LtiResourceLinkRequest' && link === null) return 'no-link';
  const choosing = type === 'LtiDeepLinkingRequest' ? choosingOf(claims) : null;
  if (typeof choosing === 'string') return choosing;
  return {
    ...{ deploymentId, user, choosing },
    name: nameIn(claims, MOST_NAME),
    email: addressIn(claims),
    campusId: textOf(fieldsOf(claims[CLAIM.lis])?.['person_sourcedid'], MOST_NAME),
    role: courseRole(textsOf(claims[CLAIM.roles])),
    course: {
      id: courseId,
      title: (textOf(context['title']) ?? textOf(context['label']) ?? say('course')).slice(0, MOST_NAME),
    },
    linkId: choosing === null ? link : null,
    exchangeId: textOf(fieldsOf(claims[CLAIM.custom])?.['exchange'], 64),
    services: servicesOf(claims),
  };
}

function choosingOf(claims: Fields): Choosing | LaunchFault {
  const settings = fieldsOf(claims[CLAIM.choosing]);
  const returnUrl = textOf(settings?.['deep_link_return_url'], 4_000);
  if (settings === null || returnUrl === null || !/^https?:\/\//.test(returnUrl)) return 'no-return';
  if (!textsOf(settings['accept_types']).includes('ltiResourceLink')) return 'links-not-accepted';
  // May be anything that fits into the token, and is sent back as it came.
  const data = typeof settings['data'] === 'string' ? settings['data'] : null;
  return { returnUrl, data, acceptsColumn: settings['accept_lineitem'] !== false };
}

function servicesOf(claims: Fields): LtiServices {
  const endpoint = fieldsOf(claims[CLAIM.endpoint]);
  return {
    membershipsUrl: textOf(fieldsOf(claims[CLAIM.memberships])?.['context_memberships_url'], 4_000),
    columnsUrl: textOf(endpoint?.['lineitems'], 4_000),
    columnUrl: textOf(endpoint?.['lineitem'], 4_000),
    scopes: textsOf(endpoint?.['scope']),
  };
}
