/** Names of claims and values of LTI 1.3, Deep Linking 2.0, Names and Role Provisioning Services 2.0 and Assignment and Grade Services 2.0 (1EdTech). */
const LTI = 'https://purl.imsglobal.org/spec/lti/claim';
const DEEP_LINKING = 'https://purl.imsglobal.org/spec/lti-dl/claim';

export const CLAIM = {
  messageType: `${LTI}/message_type`,
  version: `${LTI}/version`,
  deploymentId: `${LTI}/deployment_id`,
  targetLinkUri: `${LTI}/target_link_uri`,
  roles: `${LTI}/roles`,
  context: `${LTI}/context`,
  resourceLink: `${LTI}/resource_link`,
  custom: `${LTI}/custom`,
  lis: `${LTI}/lis`,
  memberships: 'https://purl.imsglobal.org/spec/lti-nrps/claim/namesroleservice',
  endpoint: 'https://purl.imsglobal.org/spec/lti-ags/claim/endpoint',
  choosing: `${DEEP_LINKING}/deep_linking_settings`,
  contentItems: `${DEEP_LINKING}/content_items`,
  data: `${DEEP_LINKING}/data`,
  message: `${DEEP_LINKING}/msg`,
} as const;

export const LTI_VERSION = '1.3.0';

/** What is asked for at a platform, each by its scope. */
export const SCOPE = {
  memberships: 'https://purl.imsglobal.org/spec/lti-nrps/scope/contextmembership.readonly',
  columns: 'https://purl.imsglobal.org/spec/lti-ags/scope/lineitem',
  scores: 'https://purl.imsglobal.org/spec/lti-ags/scope/score',
  results: 'https://purl.imsglobal.org/spec/lti-ags/scope/result.readonly',
} as const;

/** Media types of the services. */
export const MEDIA = {
  members: 'application/vnd.ims.lti-nrps.v2.membershipcontainer+json',
  column: 'application/vnd.ims.lis.v2.lineitem+json',
  columns: 'application/vnd.ims.lis.v2.lineitemcontainer+json',
  score: 'application/vnd.ims.lis.v1.score+json',
  results: 'application/vnd.ims.lis.v2.resultcontainer+json',
} as const;
