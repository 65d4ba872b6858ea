import { createPublicKey, generateKeyPairSync, randomUUID, type JsonWebKey } from 'node:crypto';
import jwt from 'jsonwebtoken';
import { nameOf, type Link, type Member, type Store } from './state.js';

const LTI = 'https://purl.imsglobal.org/spec/lti/claim';

/** The public half of the platform's key, as a JSON Web Key Set. */
export function keySet({ state }: Store): { keys: JsonWebKey[] } {
  const shown = createPublicKey(state.key.pem).export({ format: 'jwk' });
  return { keys: [{ ...shown, kid: state.key.id, alg: 'RS256', use: 'sig' }] };
}

export interface Launching {
  readonly member: Member;
  /** Null where something is chosen. */
  readonly link: Link | null;
  readonly nonce: string;
  readonly base: string;
}

/** What the platform says of somebody who presses a link (LTI 1.3, section 5.3), or chooses one (Deep Linking 2.0, section 4.1). */
export function launchClaims(store: Store, { member, link, nonce, base }: Launching): Record<string, unknown> {
  const { course, tool } = store.state;
  const ahead = store.has('clock') ? 600 : 0;
  const now = Math.floor(Date.now() / 1000) + ahead;
  const age = store.has('expired') ? 3_600 : 0;
  const service = `${base}/services`;
  return {
    iss: base,
    aud: tool?.clientId,
    sub: member.id,
    nonce,
    iat: now - age,
    exp: now - age + 300,
    name: nameOf(member),
    given_name: member.given,
    family_name: member.family,
    ...(member.email !== null && { email: member.email }),
    [`${LTI}/version`]: '1.3.0',
    [`${LTI}/deployment_id`]: tool?.deploymentId,
    [`${LTI}/target_link_uri`]: tool?.launchUrl,
    [`${LTI}/roles`]: member.roles,
    [`${LTI}/context`]: {
      id: course.id,
      title: course.title,
      label: course.label,
      type: ['http://purl.imsglobal.org/vocab/lis/v2/course#CourseOffering'],
    },
    ...(member.number !== null && { [`${LTI}/lis`]: { person_sourcedid: member.number } }),
    'https://purl.imsglobal.org/spec/lti-nrps/claim/namesroleservice': {
      context_memberships_url: `${service}/${course.id}/members`,
      service_versions: ['2.0'],
    },
    'https://purl.imsglobal.org/spec/lti-ags/claim/endpoint': {
      scope: ['lineitem', 'result.readonly', 'score'].map(
        (one) => `https://purl.imsglobal.org/spec/lti-ags/scope/${one}`,
      ),
      lineitems: `${service}/${course.id}/columns`,
      ...(link?.columnId != null && { lineitem: `${service}/${course.id}/columns/${link.columnId}` }),
    },
    ...(link === null
      ? {
          [`${LTI}/message_type`]: 'LtiDeepLinkingRequest',
          'https://purl.imsglobal.org/spec/lti-dl/claim/deep_linking_settings': {
            deep_link_return_url: `${base}/chosen`,
            accept_types: ['ltiResourceLink'],
            accept_presentation_document_targets: ['iframe', 'window'],
            accept_multiple: false,
            accept_lineitem: true,
            data: 'place-3',
          },
        }
      : {
          [`${LTI}/message_type`]: 'LtiResourceLinkRequest',
          [`${LTI}/resource_link`]: { id: link.id, title: link.title },
          [`${LTI}/custom`]: link.custom,
        }),
  };
}

/** Signs as the platform does, or as it has been told to do wrong. */
export function signed(store: Store, claims: Record<string, unknown>): string {
  const { key } = store.state;
  const other = () =>
    generateKeyPairSync('rsa', { modulusLength: 2048 }).privateKey.export({ type: 'pkcs8', format: 'pem' }).toString();
  const pem = store.has('signature') || store.has('unknownKey') ? other() : key.pem;
  const keyid = store.has('unknownKey') ? randomUUID() : key.id;
  return jwt.sign(claims, pem, { algorithm: 'RS256', keyid });
}

/** Reads what the application has signed, by the keys that it publishes. @throws Error with the reason */
export async function fromTool(store: Store, token: string, audience: string): Promise<Record<string, unknown>> {
  const { tool } = store.state;
  if (tool === null) throw new Error('No application is connected.');
  const decoded = jwt.decode(token, { complete: true });
  if (decoded === null) throw new Error('This is no JSON Web Token.');
  const answer = await fetch(tool.keysUrl);
  const { keys } = (await answer.json()) as { keys: Array<JsonWebKey & { kid?: string }> };
  const key = keys.find(({ kid }) => kid === decoded.header.kid);
  if (key === undefined) throw new Error('The application does not publish the key that this is signed with.');
  const claims = jwt.verify(token, createPublicKey({ key, format: 'jwk' }), {
    ...{ algorithms: ['RS256'], issuer: tool.clientId, audience, clockTolerance: 60 },
  });
  if (typeof claims === 'string') throw new Error('There are no claims in it.');
  return claims;
}
