import type { PartView } from '@salt-circle/contracts';
import { lazy, Suspense } from 'react';
import { Loading, Notice } from '../../kit/index.js';
import { HtmlPart } from './HtmlPart.js';
import { MediaPart } from './MediaPart.js';
import { PicturePart } from './PicturePart.js';
import { say } from '../../words/app.js';

/** The reader of PDFs is heavy, so it comes when one is first shown. */
const PdfPart = lazy(async () => ({ default: (await import('./PdfPart.js')).PdfPart }));

export interface PartViewerProps {
  readonly part: PartView;
  /** Where its copy is, see `partAddress`. */
  readonly address: string;
}

/** One part of a draft, as it is read: text, pages, a picture, a player, or a link. */
export function PartViewer({ part, address: at }: PartViewerProps) {
  const { copy, show, name, html } = part;
  if (show === 'link') return <LinkView part={part} />;
  if (copy !== null && copy.state !== 'ready') return <CopyState copy={copy} />;
  const address = `${at}/copy`;
  switch (show) {
    case 'html':
      return <HtmlPart html={html ?? ''} />;
    case 'pdf':
      return (
        <Suspense fallback={<Loading what={say('pages')} />}>
          <PdfPart address={address} name={name} />
        </Suspense>
      );
    case 'picture':
      return <PicturePart address={address} name={name} {...pictureSize(part)} />;
    case 'video':
    case 'sound':
      return <MediaPart kind={show} address={address} name={name} captions={part.captions ? `${at}/captions` : null} />;
  }
}

/** CSS pixels; a picture of which nothing is known is shown at a usual size. */
export function pictureSize({ facts: { width, height } }: PartView): {
  readonly width: number;
  readonly height: number;
} {
  return width === undefined || height === undefined ? { width: 800, height: 600 } : { width, height };
}

export function CopyState({ copy }: { readonly copy: NonNullable<PartView['copy']> }) {
  if (copy.state === 'failed') {
    return (
      <Notice tone="problem" title={say('thisFileCannotBeRead')}>
        {copy.problem}
      </Notice>
    );
  }
  return (
    <p role="status" className="py-2 text-ink-soft">
      {copy.progress > 0
        ? say('copyToReadIsBeing', { progress: Math.round(copy.progress * 100) })
        : say('copyToReadIsBeingMade')}
    </p>
  );
}

function LinkView({ part }: { readonly part: PartView }) {
  return (
    <div className="max-w-prose space-y-1 py-2">
      <p>
        <a href={part.url} target="_blank" rel="noopener noreferrer" className="text-dusk underline">
          {part.title}
        </a>{' '}
        <span className="text-sm text-ink-soft">{say('opensInWindowOfIts', { hostOf: hostOf(part.url) })}</span>
      </p>
      {part.about !== '' && <p className="whitespace-pre-wrap">{part.about}</p>}
    </div>
  );
}

function hostOf(url: string): string {
  return URL.canParse(url) ? new URL(url).host : url;
}
