/** One of the course's short labels for Fix notes. */
export interface ShorthandEntry {
  readonly key: string;
  readonly label: string;
  readonly meaning: string;
  /** Labels of one group stand together; empty for none. */
  readonly group: string;
}
