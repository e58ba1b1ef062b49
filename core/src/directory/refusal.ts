import type { Said } from '@tolvek/words';

/** What a directory is told in a word of the standard (RFC 7644 §3.12). */
export type ScimType =
  | 'invalidFilter'
  | 'tooMany'
  | 'uniqueness'
  | 'mutability'
  | 'invalidSyntax'
  | 'invalidPath'
  | 'noTarget'
  | 'invalidValue';

/** Says no to a directory: with the status of its answer, the word of the standard where there is one, and the reason. */
export class DirectoryRefusal extends Error {
  constructor(
    readonly status: number,
    readonly scimType: ScimType | null,
    readonly reason: Said,
  ) {
    super(scimType ?? String(status));
  }
}
