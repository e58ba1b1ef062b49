import { said, type Words } from '@tolvek/words';
import type { DesignKind } from './kind.ts';

/** Where what was typed stands: on its way, kept, refused, or changed by somebody else as well. */
export type SaveState = 'kept' | 'keeping' | 'not kept' | 'changed elsewhere';

/** A draft as it is edited on a page: what stands there, what was kept, and the way back. */
export interface Editing<Content extends object> {
  readonly content: Content;
  readonly past: readonly Content[];
  readonly future: readonly Content[];
  /** What the server has, and its version. */
  readonly kept: Content;
  readonly version: number;
  readonly state: SaveState;
  readonly trouble: Words;
}

/** What can happen to a draft that is being edited. */
export type EditingEvent<Content extends object> =
  | { readonly did: 'changed'; readonly edit: (content: Content) => Content }
  | { readonly did: 'undone' | 'redone' | 'sent' }
  | { readonly did: 'stored'; readonly content: Content; readonly version: number }
  | { readonly did: 'refused'; readonly trouble: Words }
  /** Somebody else kept a change meanwhile: what was sent here, and what they made of it. */
  | { readonly did: 'met'; readonly sent: Content; readonly theirs: Content; readonly version: number }
  /** Where both changed the same: mine stands, or theirs; all else of either side is kept. */
  | { readonly did: 'settled'; readonly pick: 'mine' | 'theirs'; readonly theirs: Content; readonly version: number }
  /** The version rose by something that changed no content, as a release does. */
  | { readonly did: 'raised'; readonly version: number };

export const beginEditing = <Content extends object>(content: Content, version: number): Editing<Content> => ({
  ...{ content, version, past: [], future: [], kept: content, state: 'kept', trouble: '' },
});

/** Tells whether something waits to be sent: nothing is while something is on its way or clashes. */
export const waitsToBeKept = <Content extends object>({ content, kept, state }: Editing<Content>): boolean =>
  content !== kept && (state === 'kept' || state === 'not kept');

/**
 * The state of a draft after something happened to it. Pure, so that nothing is done twice where a
 * page computes it twice.
 */
export function editingAfter<Content extends object>(
  { merge }: Pick<DesignKind<Content>, 'merge'>,
  before: Editing<Content>,
  event: EditingEvent<Content>,
): Editing<Content> {
  switch (event.did) {
    case 'changed': {
      const content = event.edit(before.content);
      if (content === before.content) return before;
      return { ...before, content, past: [...before.past, before.content], future: [] };
    }
    case 'undone':
    case 'redone': {
      const [from, to] = event.did === 'undone' ? [before.past, before.future] : [before.future, before.past];
      const content = from.at(-1);
      if (!content) return before;
      const left = from.slice(0, -1);
      const gone = [...to, before.content];
      return event.did === 'undone'
        ? { ...before, content, past: left, future: gone }
        : { ...before, content, past: gone, future: left };
    }
    case 'sent':
      return { ...before, state: 'keeping' };
    case 'stored':
      return { ...before, kept: event.content, version: event.version, state: 'kept', trouble: '' };
    case 'refused':
      return { ...before, state: 'not kept', trouble: event.trouble };
    case 'met': {
      const { content: together, clashes } = merge(before.kept, event.sent, event.theirs);
      if (clashes.length > 0)
        return {
          ...before,
          state: 'changed elsewhere',
          trouble: said('designs:bothChanged', { places: clashes }),
        };
      // What was typed while theirs was fetched is laid over it as well.
      const content = before.content === event.sent ? together : merge(event.sent, before.content, together).content;
      return { ...before, content, kept: event.theirs, version: event.version, state: 'kept', trouble: '' };
    }
    case 'settled': {
      const [first, second] = event.pick === 'mine' ? [before.content, event.theirs] : [event.theirs, before.content];
      const { content } = merge(before.kept, first, second);
      return { ...before, content, kept: event.theirs, version: event.version, state: 'kept', trouble: '' };
    }
    case 'raised':
      return { ...before, version: event.version };
  }
}
