import type { OpenUploadView } from '@salt-circle/contracts';
import { Button } from '../../kit/index.js';
import { api } from '../api.js';
import { ProblemNotice } from '../ProblemNotice.js';
import { bytesInWords } from '../viewing/sizes.js';
import { say } from '../../words/app.js';

const { useOpenUploadsQuery, useDropUploadMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    openUploads: build.query<OpenUploadView[], void>({ query: () => '/uploads', providesTags: ['Uploads'] }),
    dropUpload: build.mutation<null, string>({
      query: (id) => ({ url: `/uploads/${id}`, method: 'DELETE', headers: { 'tus-resumable': '1.0.0' } }),
      invalidatesTags: ['Uploads'],
    }),
  }),
});

export interface UnfinishedProps {
  readonly exchangeId: string;
  readonly deliverableId: string;
  /** Names of files that are on their way right now. */
  readonly running: readonly string[];
}

/** Files that were begun to be sent some time ago: they take up room until they are finished or dropped. Nothing for none. */
export function Unfinished({ exchangeId, deliverableId, running }: UnfinishedProps) {
  const { data = [] } = useOpenUploadsQuery(undefined, { refetchOnMountOrArgChange: true });
  const [drop, { isLoading, error }] = useDropUploadMutation();
  const here = data.filter(
    (one) => one.exchangeId === exchangeId && one.deliverableId === deliverableId && !running.includes(one.name),
  );
  if (here.length === 0) return null;
  return (
    <div className="mt-2 max-w-[68ch] text-sm">
      <p className="text-ink-soft">{say('begunAndNotFinishedChoose')}</p>
      <ul>
        {here.map(({ id, name, size, received }) => (
          <li key={id} className="flex items-center gap-3 border-b border-line py-1">
            <span className="min-w-0 flex-1 break-words">
              {name}{' '}
              <span className="text-ink-soft">
                {say('ofOf4', { bytesInWords: bytesInWords(received), bytesInWords2: bytesInWords(size) })}
              </span>
            </span>
            <Button small disabled={isLoading} aria-label={say('drop', { name })} onClick={() => void drop(id)}>
              {say('dropLabel')}
            </Button>
          </li>
        ))}
      </ul>
      {error !== undefined && <ProblemNotice error={error} />}
    </div>
  );
}
