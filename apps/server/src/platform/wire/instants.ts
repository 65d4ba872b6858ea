/** An instant as it crosses the wire: ISO 8601 in UTC. */
export function iso(at: number): string {
  return new Date(at).toISOString();
}

/** Milliseconds to ISO 8601, blank stays blank. */
export function isoOrNull(at: number | null): string | null {
  return at === null ? null : iso(at);
}
