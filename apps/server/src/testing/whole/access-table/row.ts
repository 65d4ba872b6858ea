export type Stage = 'drafting' | 'reviewing' | 'checking' | 'closed';
export const STAGES: readonly Stage[] = ['drafting', 'reviewing', 'checking', 'closed'];

/** One status for all stages, or one for each, in the order of STAGES. */
export type Expected = number | readonly [number, number, number, number];

export interface Row {
  /** As the router knows it. */
  readonly route: string;
  readonly url: string;
  readonly body?: object;
  readonly remark?: string;
  readonly instructor: Expected;
  readonly assistant: Expected;
  /** Reviewed the draft of `ben` and submitted. */
  readonly ann: Expected;
  /** Has not submitted the review of the draft of `ann`. */
  readonly ben: Expected;
  /** A student who has not handed in. */
  readonly cho: Expected;
  /** Of another course. */
  readonly outsider: Expected;
  readonly nobody: Expected;
}

export const everyone = (status: number) => ({
  instructor: status,
  assistant: status,
  ann: status,
  ben: status,
  cho: status,
  outsider: status,
  nobody: status,
});
export const signedIn = (status: number) => ({ ...everyone(status), nobody: 401 });
/** Of the course, but nobody else. */
export const inside = { outsider: 404, nobody: 401 };
export const staffOnly = (status: Expected, assistant: Expected = status) => ({
  instructor: status,
  assistant,
  ann: 403,
  ben: 403,
  cho: 403,
  ...inside,
});
