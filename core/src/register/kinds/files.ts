import { said } from '@tolvek/words';
import type { FieldValue, FileGroup, Kind, KnownFile } from '../field.ts';
import type { Problem } from '../problem.ts';
import { EMPTY, isBlank, type KindWork, STORED_APART, wrong } from './kind.ts';

/** Media types that can be told by content, with the endings of names they go by. */
const MEDIA: Readonly<Record<Exclude<FileGroup, 'any'>, Readonly<Record<string, readonly string[]>>>> = {
  pictures: { 'image/jpeg': ['jpg', 'jpeg'], 'image/png': ['png'], 'image/webp': ['webp'], 'image/gif': ['gif'] },
  documents: {
    'application/pdf': ['pdf'],
    'application/vnd.openxmlformats-officedocument.wordprocessingml.document': ['docx'],
    'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet': ['xlsx'],
    'application/vnd.oasis.opendocument.text': ['odt'],
    'application/vnd.oasis.opendocument.spreadsheet': ['ods'],
    'text/plain': ['txt'],
    'text/csv': ['csv'],
  },
};
const KNOWN = { ...MEDIA.pictures, ...MEDIA.documents };

const mediaIn = (group: FileGroup): Readonly<Record<string, readonly string[]>> =>
  group === 'any' ? KNOWN : MEDIA[group];

/** The endings of names that a group of files goes by: `.jpg,.png`. */
export const endingsOf = (group: FileGroup): readonly string[] =>
  Object.values(mediaIn(group)).flatMap((endings) => endings.map((ending) => `.${ending}`));

/**
 * The media type a file should be, by the ending of its name; undefined for endings that are not
 * taken.
 */
export function mediaByName(name: string): string | undefined {
  const ending = /\.([a-z0-9]+)$/i.exec(name)?.[1]?.toLowerCase() ?? '';
  return Object.entries(KNOWN).find(([, endings]) => endings.includes(ending))?.[0];
}

export const FILE_LIMITS = { files: 5, bytes: 20_000_000 } as const;

/** Bytes as people read them: `3.4 MB`. */
export const bytesInWords = (bytes: number): string =>
  bytes < 1_000_000
    ? `${Math.max(1, Math.round(bytes / 1_000))} kB`
    : `${(bytes / 1_000_000).toFixed(bytes < 10_000_000 ? 1 : 0)} MB`;

/** In the place of a field: what is sent with a message about a request. */
export const WITH_MESSAGE = '~message';

/** The name in a stored reference to a file. */
export const fileName = (ref: string): string => ref.slice(ref.indexOf('/') + 1);
export const fileId = (ref: string): string => ref.slice(0, Math.max(0, ref.indexOf('/')));

/** The id of the first file that a field holds; null where it holds none. */
export function firstFile(value: FieldValue | undefined): string | null {
  const [ref] = Array.isArray(value) ? value : [];
  return typeof ref === 'string' ? fileId(ref) : null;
}

/** What is wrong with a file for a field; null when it is taken. */
export function fileObjection(
  type: Extract<Kind, { kind: 'files' }>,
  file: Pick<KnownFile, 'ref' | 'bytes' | 'media'>,
): Pick<Problem, 'message' | 'fix'> | null {
  const name = fileName(file.ref);
  const most = type.mostBytes ?? FILE_LIMITS.bytes;
  if (!Object.hasOwn(mediaIn(type.only), file.media))
    return {
      message: said('answers:fileKind', { name }),
      fix: said('answers:fileKinds', { endings: endingsOf(type.only).join(', ') }),
    };
  if (file.bytes > most)
    return {
      message: said('answers:fileTooLarge', { name, size: file.bytes, most }),
      fix: said('answers:makeSmaller'),
    };
  return null;
}

const refsOf = (value: FieldValue): readonly string[] => value as readonly string[];

/**
 * Files that were sent along: kept by identity and name, and looked at by content when they come
 * in.
 */
export const files: KindWork<'files'> = {
  listed: true,
  read: (raw, type, around) => {
    if (isBlank(raw)) return EMPTY;
    const refs = [...new Set(raw as readonly unknown[])];
    const { most = FILE_LIMITS.files } = type;
    if (refs.length > most)
      return wrong(
        said('answers:tooManyFiles', { count: most, files: refs.length }),
        said('answers:removeSome', { n: refs.length - most }),
      );
    for (const ref of refs) {
      const file = around.files.find((each) => each.ref === ref);
      if (!file) return wrong(said('answers:fileGone'), said('answers:addFileAgain'));
      const objection = fileObjection(type, file);
      if (objection) return wrong(objection.message, objection.fix);
    }
    return { state: 'value', value: refs as readonly string[] };
  },
  show: (value) => refsOf(value).map(fileName).join(', '),
  typed: refsOf,
  toExpression: (value) => refsOf(value).map(fileName),
  fromExpression: () => undefined,
  scopeType: () => ({ kind: 'list', of: { kind: 'text' } }),
  stored: () => STORED_APART,
};
