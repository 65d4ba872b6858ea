/** What pages and the service worker say to each other. */
export type ToWorker =
  | {
      readonly type: 'keep';
      readonly personId: string;
      readonly reviewId: string;
      /** What the review is read and written with; addresses of this server. */
      readonly urls: readonly string[];
    }
  | { readonly type: 'drop'; readonly reviewId: string };

export type FromWorker =
  | { readonly type: 'kept'; readonly files: number; readonly bytes: number; readonly until: number }
  | { readonly type: 'full' }
  | { readonly type: 'failed' }
  | { readonly type: 'dropped' };

/** Days that a review is kept after it was last opened. */
export const KEPT_DAYS = 14;
