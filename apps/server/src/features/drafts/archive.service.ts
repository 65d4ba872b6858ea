import { Injectable } from '@nestjs/common';
import { Readable } from 'node:stream';
import { ZipFile } from 'yazl';
import type { CurrentUser } from '../../auth/view-as.js';
import { Database } from '../../platform/database/database.js';
import { Access, assertCanSee, type ExchangeContext } from '../../permissions/access.js';
import { iso } from '../../platform/wire/instants.js';
import { PersonLabels } from '../../queries/person-labels.js';
import { FilePicture, StoredFile } from '../../model/stored-file.js';
import { safeFileName } from '../../platform/files/safe-file-name.js';
import { withRightEnding } from '../../platform/bytes/endings.js';
import { FileStore } from '../../platform/files/file-store.js';
import { escapeHtml } from '../../platform/html/escape.js';
import { withFootnotes } from '../../platform/html/footnotes.js';
import { hideInHtml } from '../../platform/html/hide-in-html.js';
import { csvOf } from '../../platform/tables/cells.js';
import { Authors } from '../../queries/authors.js';
import { Draft, DraftPart, type DraftVersion } from '../../model/draft.js';
import { picturesIn, withPictureFiles } from '../../platform/html/pictures-in-text.js';
import { hiddenFrom, neutralName, untelling } from '../reading/readings.service.js';
import { digestOf } from '../../queries/version-meta.js';
import { countingVersion, partsOf } from '../../queries/versions.js';
import { say } from '../../words/drafts.js';

export type ArchiveNames = 'name' | 'alias';

const indexHead = () => [
  'folder',
  'author',
  'alias',
  'file',
  'deliverable',
  'kind',
  'version',
  say('handedIn'),
  'sha-256',
];

interface How {
  readonly names: ArchiveNames;
  /** The same text without what tells reviewers a name. */
  readonly untold: (html: string) => string;
}

/** One member of the archive. Its content is asked for when it is its turn. */
interface Member {
  readonly name: string;
  /** Of what was handed in. */
  readonly digest: string;
  readonly path?: string;
  readonly html?: () => Promise<string>;
  /** Named by its content: once in a folder is enough. */
  readonly once?: true;
}

/**
 * All hand-ins that count, in one ZIP: a folder per author, by name with the files as they came, or by alias with the
 * copies that reviewers read. Put together while it is sent: it is never in memory as a whole.
 */
@Injectable()
export class ArchiveService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly store: FileStore,
  ) {}

  async stream(person: CurrentUser, exchangeId: string, names: ArchiveNames): Promise<{ name: string; zip: Readable }> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'workspace' });
    const manager = this.database.read;
    const labels = await PersonLabels.ofExchange(manager, context);
    const authors = await Authors.load(manager, context.exchange);
    const zip = new ZipFile();
    const folders = new Set<string>();
    const index = [indexHead()];
    for (const draft of await manager.find(Draft, { where: { exchangeId }, order: { id: 'ASC' } })) {
      const version = await countingVersion(manager, draft.id);
      if (version === null || authors.of(draft).length === 0) continue;
      const { name = '', alias = '' } = labels.authorOf(draft);
      const shown = names === 'name' ? name || alias : alias || name;
      const folder = unique(safeFileName(shown), folders);
      const about = [folder, names === 'name' ? name : '', alias];
      const untold =
        names === 'name' ? (html: string) => html : untelling(await hiddenFrom(manager, context.exchange, draft));
      for (const row of await this.#addDraft(zip, context, version, folder, { names, untold }))
        index.push([...about, ...row]);
    }
    zip.addBuffer(Buffer.from(csvOf(index)), 'index.csv');
    zip.end();
    return { name: `${safeFileName(context.exchange.title)}.zip`, zip: zip.outputStream as Readable };
  }

  /** @returns the rows of the index, less what is the same for the whole folder */
  async #addDraft(
    zip: ZipFile,
    context: ExchangeContext,
    version: DraftVersion,
    folder: string,
    how: How,
  ): Promise<string[][]> {
    const { deliverables } = context.exchange;
    const taken = new Set<string>();
    const rows: string[][] = [];
    for (const part of await partsOf(this.database.read, version.draftId, version.id, deliverables)) {
      const title = deliverables.find(({ id }) => id === part.deliverableId)?.title ?? '';
      const row = (file: string, digest: string) =>
        rows.push([file, title, part.kind, String(version.number), iso(version.handedInAt), digest]);
      if (part.kind === 'link') row(part.url, digestOf(part));
      for (const { name, digest, path, html, once } of await this.#members(part, title, version, how)) {
        if (once === true && taken.has(name)) continue;
        const member = unique(safeFileName(name), taken);
        if (path !== undefined) zip.addFile(path, `${folder}/${member}`);
        else if (html !== undefined) addLazily(zip, `${folder}/${member}`, html);
        row(member, digest);
      }
    }
    return rows;
  }

  async #members(part: DraftPart, title: string, version: DraftVersion, { names, untold }: How): Promise<Member[]> {
    if (part.kind === 'link') return [];
    const own = digestOf(part);
    // Without names, a digest of what was handed in would lead to it: what is in the archive has its own, or none.
    const shown = names === 'name' ? own : '';
    if (part.kind === 'text') {
      const page = async () => this.#page(version.title, untold(withFootnotes(await this.#typed(part.id))));
      return [{ name: `${title}.html`, digest: shown, html: page }, ...this.#pictures(picturesIn(part.html))];
    }
    const file = await this.database.read.findOneByOrFail(StoredFile, { digest: own });
    const captions = await this.#captions(part, title, names);
    if (names === 'name')
      return [{ name: withRightEnding(part.name, file.mime), digest: own, path: this.store.path(own) }, ...captions];
    const name = neutralName(title, part, file);
    if (file.copyDigest !== null)
      return [{ name, digest: file.copyDigest, path: this.store.path(file.copyDigest) }, ...captions];
    if (file.copyHtml === null) return [];
    const page = async () => this.#page(version.title, untold(hideInHtml(await this.#copy(own), part.hidden)));
    return [{ name: `${name}.html`, digest: shown, html: page }, ...this.#pictures(await this.#picturesOf(own))];
  }

  /** Without names, what reviewers get of them. */
  async #captions({ captions, position }: DraftPart, title: string, names: ArchiveNames): Promise<Member[]> {
    if (captions === null) return [];
    const { copyDigest } = await this.database.read.findOneByOrFail(StoredFile, { digest: captions });
    const digest = names === 'name' ? captions : copyDigest;
    return digest === null
      ? []
      : [{ name: say('vtt', { title, position: position + 1 }), digest, path: this.store.path(digest) }];
  }

  /** Pictures of a page lie beside it. */
  #pictures(digests: readonly string[]): Member[] {
    return digests.map((digest) => ({
      name: `picture-${digest.slice(0, 16)}`,
      digest,
      path: this.store.path(digest),
      once: true,
    }));
  }

  async #typed(partId: string): Promise<string> {
    return (await this.database.read.findOneByOrFail(DraftPart, { id: partId })).html;
  }

  async #copy(digest: string): Promise<string> {
    return (await this.database.read.findOneByOrFail(StoredFile, { digest })).copyHtml ?? '';
  }

  async #picturesOf(fileDigest: string): Promise<string[]> {
    const rows = await this.database.read.find(FilePicture, { where: { fileDigest }, order: { digest: 'ASC' } });
    return rows.map(({ digest }) => digest);
  }

  #page(title: string, html: string): string {
    const words = escapeHtml(title);
    const linked = html.replace(/(<[^<>]*) data-anchor="/g, '$1 id="');
    const body = withPictureFiles(linked, (digest) => `picture-${digest.slice(0, 16)}`);
    return `<!doctype html><meta charset="utf-8"><title>${words}</title><h1>${words}</h1>${body}`;
  }
}

function addLazily(zip: ZipFile, path: string, content: () => Promise<string>): void {
  zip.addReadStreamLazy(path, {}, (ready) => {
    content().then(
      (text) => ready(null, Readable.from([Buffer.from(text)])),
      (error: Error) => ready(error, Readable.from([])),
    );
  });
}

/** Names that differ only in case are one name on many disks. */
function unique(name: string, taken: Set<string>): string {
  const dot = name.lastIndexOf('.');
  const [stem, ending] = dot > 0 ? [name.slice(0, dot), name.slice(dot)] : [name, ''];
  let candidate = name;
  for (let number = 2; taken.has(candidate.toLowerCase()); number += 1) candidate = `${stem} ${number}${ending}`;
  taken.add(candidate.toLowerCase());
  return candidate;
}
