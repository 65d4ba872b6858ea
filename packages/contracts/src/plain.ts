/** What the browser needs at run time: values without the classes of requests, which bring their validators along. */
export { LIMITS } from './limits.js';
export { boardChange, changedBoard } from './views/boardChange.js';
export { LTI_SCORE_STATES } from './views/lti.js';
