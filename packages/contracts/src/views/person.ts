/** All instants are ISO 8601 in UTC. */
export type IsoInstant = string;

/** A person as the one who asks may know them: a name, an alias, both, or "you"; of staff under their own name, their role. */
export interface PersonLabel {
  readonly name?: string;
  readonly alias?: string;
  readonly you?: true;
  readonly role?: 'instructor' | 'assistant';
}
