/** What an archive holds, before it is read. */
export interface ArchiveView {
  readonly title: string;
  readonly courseTitle: string;
  readonly madeAt: string;
  /** `aliases`: for research, without names. */
  readonly people: 'names' | 'aliases';
  /** With what was handed in. */
  readonly drafts: boolean;
  readonly students: number;
  /** Names of the staff of then, without whoever reads it. */
  readonly staff: readonly string[];
  /** Whoever reads it was an instructor in it. */
  readonly you: boolean;
  readonly counts: {
    readonly drafts: number;
    readonly reviews: number;
    readonly notes: number;
    readonly files: number;
  };
  readonly remarks: readonly string[];
}
