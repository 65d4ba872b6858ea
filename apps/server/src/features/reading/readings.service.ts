import { Injectable } from '@nestjs/common';
import type { DraftReading, PartShow, PartView } from '@salt-circle/contracts';
import { countWords, findIdentities, type Deliverable, type Identity, type Reader } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { ExchangeContext } from '../../permissions/access.js';
import { Copies } from './copies.service.js';
import type { ExchangeAttachment } from '../../model/attachment.js';
import type { StoredFile } from '../../model/stored-file.js';
import { hidesAuthors, identitiesOf } from '../../queries/authors.js';
import { withoutTelling, type BehindText } from '../../platform/html/bare-attributes.js';
import { withFootnotes } from '../../platform/html/footnotes.js';
import { endingOf } from '../../platform/bytes/endings.js';
import { hideInHtml } from '../../platform/html/hide-in-html.js';
import { htmlToText } from '../../platform/html/html-to-text.js';
import type { Draft, DraftPart, DraftVersion } from '../../model/draft.js';
import type { Exchange } from '../../model/exchange.js';
import { withAddresses } from '../../platform/html/pictures-in-text.js';
import { filesOfParts, partsOf } from '../../queries/versions.js';

/** Puts together what somebody gets to read of a draft. The one place that decides what of a file leaves the server. */
@Injectable()
export class Readings {
  constructor(private readonly copies: Copies) {}

  async of(
    manager: EntityManager,
    context: ExchangeContext,
    draft: Draft,
    version: DraftVersion,
    reader: Reader,
  ): Promise<DraftReading> {
    const rows = await partsOf(manager, draft.id, version.id, context.exchange.deliverables);
    const parts = await this.parts(manager, context, draft, rows, reader);
    const { title, number } = version;
    return { draftId: draft.id, title, context: version.context, version: number, ...summary(parts) };
  }

  /** As it is saved now, the way reviewers would see it. */
  async preview(
    manager: EntityManager,
    context: ExchangeContext,
    draft: Draft,
    rows: readonly DraftPart[],
  ): Promise<DraftReading> {
    const parts = await this.parts(manager, context, draft, rows, 'reviewer');
    return {
      draftId: draft.id,
      title: draft.title.trim(),
      context: draft.context.trim(),
      version: 0,
      ...summary(parts),
    };
  }

  async parts(
    manager: EntityManager,
    { exchange }: ExchangeContext,
    draft: Pick<Draft, 'id' | 'participantId' | 'groupId'>,
    rows: readonly DraftPart[],
    reader: Reader,
  ): Promise<PartView[]> {
    const files = await filesOfParts(manager, rows);
    const deliverables = new Map(exchange.deliverables.map((one) => [one.id, one]));
    const address = (html: string) => withAddresses(html, `exchanges/${exchange.id}/drafts/${draft.id}`);
    const untold = untelling(reader === 'reviewer' ? await hiddenFrom(manager, exchange, draft) : []);
    return rows
      .filter(({ kind, html }) => kind !== 'text' || html !== '')
      .map((row) => {
        const file = row.digest === null ? null : (files.get(row.digest) ?? null);
        const view = this.#part(row, file, deliverables.get(row.deliverableId), reader);
        return view.html === null ? view : { ...view, html: address(untold(view.html)) };
      });
  }

  /** A file attached to brief or guide, as a part of its own: nothing of it is hidden from anybody. */
  attachment({ id, name, exchangeId }: ExchangeAttachment, file: StoredFile): PartView {
    const ready = file.copyState === 'ready' && file.copyHtml !== null;
    return {
      ...{ id, name, kind: 'file', show: showOf({ kind: 'file' }, file), deliverableId: '', deliverable: '' },
      html: ready ? withAddresses(file.copyHtml as string, `exchanges/${exchangeId}/attachments/${id}`) : null,
      ...{ url: '', title: '', about: '', words: file.facts.words ?? 0, size: file.size, digest: file.digest },
      ...{ copy: this.copies.view(file), facts: file.facts, captions: false, original: true },
    };
  }

  /** What a reviewer has put to a note or an answer: a copy, under the name that it is told by. */
  remarkFile(
    { reviewId, fileId, name }: { readonly reviewId: string; readonly fileId: string; readonly name: string },
    file: StoredFile,
  ): PartView {
    const ready = file.copyState === 'ready' && file.copyHtml !== null;
    return {
      ...{ id: fileId, name, kind: 'file', show: showOf({ kind: 'file' }, file), deliverableId: '', deliverable: '' },
      html: ready ? withAddresses(file.copyHtml as string, `reviews/${reviewId}/files/${fileId}`) : null,
      ...{ url: '', title: '', about: '', words: file.facts.words ?? 0, size: null, digest: null },
      ...{ copy: this.copies.view(file), facts: file.facts, captions: false, original: false },
    };
  }

  #part(row: DraftPart, file: StoredFile | null, deliverable: Deliverable | undefined, reader: Reader): PartView {
    const full = reader !== 'reviewer';
    const html = row.kind === 'text' ? withFootnotes(row.html) : copyHtml(row, file, reader);
    const title = deliverable?.title ?? '';
    return {
      id: row.id,
      deliverableId: row.deliverableId,
      deliverable: title,
      kind: row.kind,
      show: showOf(row, file),
      name: full ? row.name : neutralName(title, row, file),
      html,
      url: row.url,
      title: row.title,
      about: row.about,
      words: row.kind === 'text' ? countWords(htmlToText(row.html)) : (file?.facts.words ?? 0),
      size: full ? (file?.size ?? null) : null,
      digest: full ? row.digest : null,
      copy: file === null ? null : this.copies.view(file),
      facts: file?.facts ?? {},
      captions: row.captions !== null,
      original: full && row.digest !== null,
    };
  }
}

/** The authors of a draft as far as reviewers are not to know them. */
export async function hiddenFrom(
  manager: EntityManager,
  exchange: Exchange,
  draft: Pick<Draft, 'participantId' | 'groupId'>,
): Promise<Identity[]> {
  return hidesAuthors(exchange) ? identitiesOf(manager, exchange, draft) : [];
}

/** Takes out of texts where links lead, and what describes pictures, where that says who one of these people is. */
export function untelling(people: readonly Identity[]): (html: string) => string {
  const tells = ({ words }: BehindText) => findIdentities(words, people, { as: 'label' }).length > 0;
  return (html) => (people.length === 0 ? html : withoutTelling(html, tells));
}

function summary(parts: readonly PartView[]): Pick<DraftReading, 'words' | 'parts'> {
  return { words: parts.reduce((sum, part) => sum + part.words, 0), parts };
}

function copyHtml({ hidden }: DraftPart, file: StoredFile | null, reader: Reader): string | null {
  if (file === null || file.copyState !== 'ready' || file.copyHtml === null) return null;
  return reader === 'reviewer' ? hideInHtml(file.copyHtml, hidden) : file.copyHtml;
}

/** How a reader shows a part; null for what can only be taken along. */
export function showOf({ kind }: Pick<DraftPart, 'kind'>, file: Pick<StoredFile, 'family'> | null): PartShow {
  if (kind === 'text') return 'html';
  if (kind === 'link' || file === null) return 'link';
  switch (file.family) {
    case 'pdf':
      return 'pdf';
    case 'image':
      return 'picture';
    case 'video':
      return 'video';
    case 'audio':
      return 'sound';
    case 'document':
    case 'plain-text':
    case 'captions':
      return 'html';
  }
}

/** Made of the deliverable alone: the name that a file came with may tell whose it is. */
export function neutralName(
  deliverable: string,
  { position }: Pick<DraftPart, 'position'>,
  file: Pick<StoredFile, 'mime'> | null,
): string {
  return `${deliverable} ${position + 1}${endingOf(file?.mime ?? '')}`;
}
