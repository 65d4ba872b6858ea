import { Injectable } from '@nestjs/common';
import { stringify } from 'csv-stringify/sync';
import type { Readable } from 'node:stream';
import { ZipFile } from 'yazl';
import type { Person } from '../accounts/entities.js';
import { Database } from '../database/database.js';
import { Access, see } from '../exchanges/access.js';
import { Labels } from '../exchanges/labels.js';
import { iso } from '../exchanges/instants.js';
import { StoredFile } from '../files/entities.js';
import { FileStore } from '../files/file-store.js';
import { tamed } from '../files/file-names.js';
import { Authors } from './authors.js';
import { Draft, type DraftPart } from './entities.js';
import { neutralName } from './readings.js';
import { digestOf } from './version-meta.js';
import { lastVersion, partsOf } from './versions.js';

export type ArchiveNames = 'name' | 'alias';

/** A spreadsheet would run a cell that begins like a formula. */
const FORMULA = /^[=+\-@\t\r]/;

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

  async stream(person: Person, exchangeId: string, names: ArchiveNames): Promise<{ name: string; zip: Readable }> {
    const place = await this.access.exchange(person, exchangeId);
    see(place, { kind: 'workspace' });
    const manager = this.database.read;
    const { exchange } = place;
    const labels = await Labels.ofExchange(manager, place);
    const authors = await Authors.load(manager, exchange);
    const zip = new ZipFile();
    const taken = new Set<string>();
    const index: string[][] = [
      ['folder', 'author', 'alias', 'file', 'deliverable', 'kind', 'version', 'handed in', 'sha-256'],
    ];
    for (const draft of await manager.find(Draft, { where: { exchangeId }, order: { id: 'ASC' } })) {
      const version = await lastVersion(manager, draft.id);
      if (version === null || authors.of(draft).length === 0) continue;
      const label = labels.authorOf(draft);
      const folder = unique(tamed((names === 'alias' ? label.alias : label.name) ?? label.alias ?? 'author'), taken);
      const row = (file: string, part: DraftPart, digest: string) => {
        const title = exchange.deliverables.find(({ id }) => id === part.deliverableId)?.title ?? '';
        const author = names === 'alias' ? '' : (label.name ?? '');
        return [
          folder,
          author,
          label.alias ?? '',
          file,
          title,
          part.kind,
          String(version.number),
          iso(version.handedInAt),
          digest,
        ];
      };
      const inFolder = new Set<string>();
      for (const part of await partsOf(manager, draft.id, version.id, exchange.deliverables)) {
        const title = exchange.deliverables.find(({ id }) => id === part.deliverableId)?.title ?? 'part';
        const file = part.digest === null ? null : await manager.findOneBy(StoredFile, { digest: part.digest });
        if (part.kind === 'link') {
          index.push(row(part.url, part, digestOf(part)));
        } else if (part.kind === 'text' || file === null) {
          const name = unique(tamed(`${title}.html`), inFolder);
          zip.addBuffer(Buffer.from(page(version.title, part.html)), `${folder}/${name}`);
          index.push(row(name, part, digestOf(part)));
        } else {
          const original = names === 'name';
          const digest = original ? file.digest : file.copyDigest;
          const name = unique(tamed(original ? part.name : neutralName(title, part, file)), inFolder);
          if (digest !== null) zip.addFile(this.store.path(digest), `${folder}/${name}`);
          else zip.addBuffer(Buffer.from(page(version.title, file.copyHtml ?? '')), `${folder}/${name}.html`);
          index.push(row(name, part, digest ?? file.digest));
        }
      }
    }
    const safe = index.map((cells) => cells.map((cell) => (FORMULA.test(cell) ? `'${cell}` : cell)));
    zip.addBuffer(Buffer.from(`\uFEFF${stringify(safe, { record_delimiter: 'windows' })}`), 'index.csv');
    zip.end();
    return { name: `${tamed(exchange.title)}.zip`, zip: zip.outputStream as Readable };
  }
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

function page(title: string, html: string): string {
  const words = title.replace(/&/g, '&amp;').replace(/</g, '&lt;');
  return `<!doctype html><meta charset="utf-8"><title>${words}</title><h1>${words}</h1>${html}`;
}
