import { said, type Words } from '@tolvek/words';
import type { DesignKind, Reference } from './kind.ts';

/** A design with all it names, to be taken to another installation as one file. */
export interface DesignFile<Content extends object> {
  readonly format: string;
  readonly version: 1;
  readonly content: Content;
  /** What it names and another installation has to have. */
  readonly needs: readonly Reference[];
}

const formatOf = (kind: string): string => `tolvek-${kind}`;

/** A design as a file. */
export const designFile = <Content extends object>(
  kind: Pick<DesignKind<Content>, 'kind' | 'refersTo'>,
  content: Content,
): DesignFile<Content> => ({ format: formatOf(kind.kind), version: 1, content, needs: kind.refersTo(content) });

/**
 * A design out of a file, as its schema reads it.
 *
 * @returns what is wrong with the file, in words, when it is none of this kind.
 */
export function fromDesignFile<Content extends object>(
  kind: Pick<DesignKind<Content>, 'kind'>,
  schema: { readonly safeParse: (value: unknown) => { success: true; data: Content } | { success: false } },
  file: unknown,
): { readonly content: Content } | { readonly wrong: Words } {
  const { format, version, content } = (typeof file === 'object' && file !== null ? file : {}) as Partial<
    DesignFile<Content>
  >;
  if (format !== formatOf(kind.kind)) return { wrong: said('designs:otherFile') };
  if (version !== 1) return { wrong: said('designs:newerFile') };
  const read = schema.safeParse(content);
  return read.success ? { content: read.data } : { wrong: said('designs:brokenFile') };
}
