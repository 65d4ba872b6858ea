export { StandInCampus, type CampusOptions } from './campus.js';
export { launchClaims, signed, type Launching } from './statements.js';
export { FAULTS, Store, type Fault, type Link, type Member, type State, type Tool } from './state.js';
