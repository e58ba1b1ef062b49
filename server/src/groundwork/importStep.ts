import type { ProfileChanges } from '../people/commands.ts';

/** What was done to somebody, with what is needed to undo it. Values of profiles are null where there is nothing. */
export type ImportStep =
  | { readonly did: 'added'; readonly person: string }
  | { readonly did: 'gone'; readonly person: string }
  | {
      readonly did: 'changed';
      readonly person: string;
      readonly before: Side;
      readonly after: Side;
      /** Whether an address came that had found nobody. */
      readonly address: string | null;
      readonly entries: readonly string[];
    };

/** The settings of somebody that an import changed, on one side of it. */
export interface Side {
  readonly name?: string;
  readonly email?: string;
  readonly language?: 'en' | 'de' | null;
  readonly active?: boolean;
  readonly profile: ProfileChanges;
}
