import type { EntityManager } from 'typeorm';
import { FileContent, FilePicture, type StoredFile } from '../../model/stored-file.js';
import { portions } from '../database/portions.js';

/** Puts what lies in the file store on record, in the transaction of the rows that refer to it. The same content twice is one row. */
export async function recordContents(manager: EntityManager, digests: readonly string[]): Promise<void> {
  for (const some of portions(digests.map((digest) => ({ digest }))))
    await manager.createQueryBuilder().insert().into(FileContent).values(some).orIgnore().updateEntity(false).execute();
}

/** Whether the reading copy of a document shows this picture. */
export function isPictureOf(
  manager: EntityManager,
  { digest: fileDigest }: Pick<StoredFile, 'digest'>,
  digest: string,
): Promise<boolean> {
  return manager.existsBy(FilePicture, { fileDigest, digest });
}
