export { StandInPlatform, type LtiOptions } from './platform.js';
export { launchClaims, signed, type Launching } from './statements.js';
export { FAULTS, Store, type Fault, type Link, type Member, type State, type Tool } from './state.js';
