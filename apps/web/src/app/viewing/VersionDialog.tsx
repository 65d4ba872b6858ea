import type { VersionMeta, VersionView } from '@salt-circle/contracts';
import { useState } from 'react';
import { Dialog, Loading, Select } from '../../kit/index.js';
import { plainText } from '../reading/plainText.js';
import { Compare } from './Compare.js';
import { ReadingParts } from './ReadingParts.js';
import { say } from '../../words/app.js';

export interface VersionDialogProps {
  readonly number: number;
  readonly versions: readonly VersionMeta[];
  readonly exchangeId: string;
  /** Loads a version; undefined while it is on its way, and for none. */
  readonly useVersion: (number: number | null) => VersionView | undefined;
  readonly onClose: () => void;
}

/** A version to read, or beside another one, word by word. */
export function VersionDialog({ number, versions, exchangeId, useVersion, onClose }: VersionDialogProps) {
  const [other, setOther] = useState<number | null>(null);
  const version = useVersion(number);
  const compared = useVersion(other);
  const others = versions.filter((one) => one.number !== number);
  return (
    <Dialog
      open
      onClose={onClose}
      title={version === undefined ? say('version', { number }) : say('versionOf', { title: version.title, number })}
      wide
    >
      {others.length > 0 && (
        <div className="mb-3 max-w-60">
          <Select
            label={say('compareWith')}
            value={other === null ? '' : String(other)}
            onChange={(chosen) => setOther(chosen === '' ? null : Number(chosen))}
            options={[
              ['', say('nothingJustRead')],
              ...others.map((one) => [String(one.number), say('versionOf2', { number: one.number })] as const),
            ]}
          />
        </div>
      )}
      {version === undefined || (other !== null && compared === undefined) ? (
        <Loading what={say('versionWord')} />
      ) : compared === undefined ? (
        <ReadingParts reading={version.reading} exchangeId={exchangeId} />
      ) : (
        <Compare {...inOrder(version, compared)} />
      )}
    </Dialog>
  );
}

/** The earlier one first, whichever is read. */
function inOrder(one: VersionView, two: VersionView): { before: string; after: string } {
  const [earlier, later] = one.number < two.number ? [one, two] : [two, one];
  return { before: textOf(earlier), after: textOf(later) };
}

function textOf({ title, reading }: VersionView): string {
  return [title, ...reading.parts.map(({ html, name, url }) => (html === null ? name || url : plainText(html)))].join(
    '\n\n',
  );
}
