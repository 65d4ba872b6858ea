import { CLAIM, COLUMN_MAXIMUM, LTI_VERSION, type Launch } from '@salt-circle/core';
import type { LtiPlatform } from '../../../model/lti.js';
import type { Exchange } from '../../../model/exchange.js';
import { say } from '../../../words/lti.js';

/**
 * What goes back to a platform when something has been chosen there: one link, and perhaps a column of the gradebook with it (Deep Linking
 * 2.0, sections 3 and 4.5).
 */
export function choiceClaims(
  platform: Pick<LtiPlatform, 'issuer' | 'clientId'>,
  launch: Launch,
  chosen: { readonly exchange: Pick<Exchange, 'id' | 'title'> | null; readonly column: boolean },
  ours: { readonly launchUrl: string; readonly nonce: string },
): Record<string, unknown> {
  const { exchange, column } = chosen;
  const title = exchange?.title ?? say('peerReview');
  return {
    iss: platform.clientId,
    aud: platform.issuer,
    nonce: ours.nonce,
    [CLAIM.messageType]: 'LtiDeepLinkingResponse',
    [CLAIM.version]: LTI_VERSION,
    [CLAIM.deploymentId]: launch.deploymentId,
    ...(launch.choosing?.data != null && { [CLAIM.data]: launch.choosing.data }),
    [CLAIM.message]: say('hasBeenChosen', { title }),
    [CLAIM.contentItems]: [
      {
        type: 'ltiResourceLink',
        title,
        url: ours.launchUrl,
        ...(exchange !== null && { custom: { exchange: exchange.id } }),
        ...(exchange !== null &&
          column && {
            lineItem: { label: title, scoreMaximum: COLUMN_MAXIMUM, resourceId: exchange.id, tag: 'grade' },
          }),
      },
    ],
  };
}
