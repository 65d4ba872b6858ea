import type { AttachmentCard } from '@salt-circle/contracts';
import { In, type EntityManager } from 'typeorm';
import { ExchangeAttachment } from '../model/attachment.js';
import { StoredFile } from '../model/stored-file.js';

/**
 * What is given with brief and guide, in the order in which it was added. Whoever sees an exchange sees its brief and
 * guide, and so these as well.
 */
export async function attachmentsOf(manager: EntityManager, exchangeId: string): Promise<AttachmentCard[]> {
  const rows = await manager.find(ExchangeAttachment, { where: { exchangeId }, order: { addedAt: 'ASC', id: 'ASC' } });
  const files =
    rows.length === 0 ? [] : await manager.findBy(StoredFile, { digest: In(rows.map((one) => one.digest)) });
  const sizes = new Map(files.map(({ digest, size }) => [digest, size]));
  return rows.map(({ id, place, name, digest }) => ({ id, place, name, size: sizes.get(digest) ?? 0 }));
}
