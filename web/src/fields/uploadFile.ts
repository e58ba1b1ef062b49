import type { ProblemDocument } from '@tolvek/contract';
import type { KnownFile } from '@tolvek/core/register';

/** Why a file was not taken, in words for whoever sent it. */
export class NotTaken extends Error {}

/**
 * Sends a file for a field to an address of uploads; `told` hears how much of it has gone, from 0
 * to 1.
 */
export function uploadFile(
  address: string,
  field: string,
  file: File,
  told: (part: number) => void,
): Promise<KnownFile> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', `${address}?${new URLSearchParams({ field, name: file.name })}`);
    request.setRequestHeader('Content-Type', 'application/octet-stream');
    request.responseType = 'json';
    request.upload.onprogress = ({ loaded, total }) => told(total > 0 ? loaded / total : 0);
    request.onload = () => {
      if (request.status === 200) return resolve(request.response as KnownFile);
      const problem = request.response as ProblemDocument | null;
      reject(
        new NotTaken(
          problem?.problems?.map((each) => `${each.message} ${each.fix}`).join(' ') ??
            problem?.detail ??
            'The file was not taken. Try again.',
        ),
      );
    };
    request.onerror = () => reject(new NotTaken('The file did not arrive. Check the connection and choose it again.'));
    request.send(file);
  });
}
