import type { ProblemDocument } from '@tolvek/contract';
import type { KnownFile } from '@tolvek/core/register';
import { refusalInWords } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';

/** Why a file was not taken, in words for whoever sent it. */
export class NotTaken extends Error {}

/**
 * Sends a file for a field to an address of uploads; `told` hears how much of it has gone, from 0
 * to 1. `beside`: what else the address says.
 */
export function uploadFile(
  address: string,
  field: string,
  file: File,
  arrived: (part: number) => void,
  beside: Readonly<Record<string, string>> = {},
): Promise<KnownFile> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', `${address}?${new URLSearchParams({ field, name: file.name, ...beside })}`);
    request.setRequestHeader('Content-Type', 'application/octet-stream');
    request.responseType = 'json';
    request.upload.onprogress = ({ loaded, total }) => arrived(total > 0 ? loaded / total : 0);
    request.onload = () => {
      if (request.status === 200) return resolve(request.response as KnownFile);
      const problem = request.response as ProblemDocument | null;
      reject(
        new NotTaken(
          problem?.problems?.map(({ message, fix }) => `${told(message)} ${told(fix)}`).join(' ') ??
            (problem?.said ? refusalInWords(problem) : say('desk:fileFailed')),
        ),
      );
    };
    request.onerror = () => reject(new NotTaken(say('desk:fileLost')));
    request.send(file);
  });
}
