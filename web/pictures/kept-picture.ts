import type { KeptFile } from '@unto/contract';
import { api, PATIENT_MS, sent } from '../api/client';
import { useShop } from '../stores/shop';

/** Keeps a file on the server under the hash of its content. @throws ApiProblem, Unreachable */
export function keepPictureFile(file: File): Promise<KeptFile> {
  const how = { operator: useShop().operatorId ?? '', withinMs: PATIENT_MS };
  return api.call('keepFile', { query: { name: file.name }, body: file }, how);
}

/** A kept file's content as it was brought; the browser keeps it, its name never stands for anything else. */
export async function keptPicture({ hash }: Pick<KeptFile, 'hash'>): Promise<Blob> {
  return (await sent(`/api/files/${hash}`, { signal: AbortSignal.timeout(PATIENT_MS) })).blob();
}
