import type { Words } from '@tolvek/words';
/** One thing that differs between two states of a design: in a sentence, and on either side. */
export interface Change {
  /** Where in the design it is worked on. */
  readonly page: string;
  readonly at: string;
  readonly words: Words;
  /** Empty when there was nothing. */
  readonly before: Words;
  /** Empty when nothing is left. */
  readonly after: Words;
}

/** What a design names of another one: `{ kind: 'vocabulary', key: 'species', at: 'Species', in: … }`. */
export interface Reference {
  readonly kind: string;
  readonly key: string;
  /** What the place that names it is called. */
  readonly at: Words;
}

/** Something wrong or doubtful in a design: errors keep it from being put in force. */
export interface DesignFinding {
  readonly severity: 'error' | 'caution';
  readonly page: string;
  readonly at: string;
  readonly message: Words;
}

/** Two people’s states of a design, put together. */
export interface Merged<Content> {
  readonly content: Content;
  /** What both changed, each in another way; the first side’s change stands in `content`. */
  readonly clashes: readonly Words[];
}

/**
 * A kind of design: what a coordinator sets. The kind says only what is its own; drafts, numbered
 * states, history, going back and files are the same for all.
 */
export interface DesignKind<Content extends object, Around = null> {
  /** Lasting, in what is stored and in files. */
  readonly kind: string;
  readonly titleOf: (content: Content) => string;
  /** What one state would change against another; null when there is none yet. */
  readonly compare: (before: Content | null, after: Content) => readonly Change[];
  readonly merge: (base: Content, mine: Content, theirs: Content) => Merged<Content>;
  /** `around`: what findings depend on besides the design. */
  readonly findings: (content: Content, around: Around) => readonly DesignFinding[];
  readonly refersTo: (content: Content) => readonly Reference[];
}
