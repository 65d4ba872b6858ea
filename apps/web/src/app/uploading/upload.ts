import type { Problem } from '@salt-circle/contracts';
import { Upload } from 'tus-js-client';
import { say } from '../../words/app.js';

export interface UploadPurpose {
  readonly exchangeId: string;
  /** Of an attachment: `brief` or `guide`. Of a remark, and of a marked draft: the review. */
  readonly deliverableId: string;
  readonly use: 'part' | 'picture' | 'captions' | 'attachment' | 'remark' | 'marked' | 'archive';
  /** For staff: whose draft the file goes into. */
  readonly participantId?: string;
}

export interface RunningUpload {
  /** Id of the finished upload; fails with {@link UploadStopped}. */
  readonly done: Promise<string>;
  readonly cancel: () => void;
}

/** An upload that did not come to its end, with what to tell. */
export class UploadStopped extends Error {
  override readonly name = 'UploadStopped';
  constructor(
    readonly problem: Problem,
    readonly cancelled = false,
  ) {
    super(problem.sentence);
  }
}

/** Milliseconds before each new try when the connection is lost; the last ones give a tunnel time to end. */
const TRIES = [500, 2_000, 5_000, 10_000, 20_000, 30_000, 60_000];

const lostOnTheWay = (): Problem => ({
  code: 'unexpected',
  sentence: say('connectionWasLostWhileFile'),
  whatToDo: say('chooseSameFileAgainIt'),
  fields: [],
});

/**
 * Sends a file in a way that can be interrupted: a lost connection is waited out, and the same file chosen again,
 * also after the page was closed, goes on from where it was.
 *
 * @param onProgress share that has arrived, 0 to 1
 */
export function upload(
  file: File,
  { exchangeId, deliverableId, use, participantId }: UploadPurpose,
  onProgress: (share: number) => void,
): RunningUpload {
  let cancel = () => {};
  const done = new Promise<string>((resolve, reject) => {
    const task = new Upload(file, {
      endpoint: '/api/uploads',
      headers: { 'x-salt-circle': '1' },
      retryDelays: TRIES,
      metadata: {
        exchange: exchangeId,
        deliverable: deliverableId,
        use,
        name: file.name,
        ...(participantId !== undefined && { participant: participantId }),
      },
      removeFingerprintOnSuccess: true,
      fingerprint: () =>
        Promise.resolve(
          [
            'salt-circle',
            exchangeId,
            deliverableId,
            participantId ?? '',
            use,
            file.name,
            file.size,
            file.lastModified,
          ].join('|'),
        ),
      onProgress: (sent, total) => onProgress(total === 0 ? 0 : sent / total),
      onSuccess: () => resolve(task.url?.split('/').at(-1) ?? ''),
      onError: (error) => reject(new UploadStopped(problemIn(error))),
      // A refusal stays a refusal; only what may pass is tried again.
      onShouldRetry: (error) => {
        const status = 'originalResponse' in error ? (error.originalResponse?.getStatus() ?? 0) : 0;
        return status === 0 || status === 409 || status === 423 || status >= 500;
      },
    });
    cancel = () => {
      void task.abort(true);
      reject(new UploadStopped(lostOnTheWay(), true));
    };
    void task.findPreviousUploads().then(([earlier]) => {
      if (earlier !== undefined) task.resumeFromPreviousUpload(earlier);
      task.start();
    });
  });
  return { done, cancel: () => cancel() };
}

function problemIn(error: unknown): Problem {
  const response = (error as { originalResponse?: { getBody(): string } | null }).originalResponse;
  try {
    const told = JSON.parse(response?.getBody() ?? '') as Problem;
    return typeof told.sentence === 'string' ? told : lostOnTheWay();
  } catch {
    return lostOnTheWay();
  }
}
