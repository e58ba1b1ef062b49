import type { OfferCard, VisibleLines } from '@tolvek/core/access';
import type {
  Field,
  Kind,
  KindName,
  KnownFile,
  KnownPerson,
  KnownRequest,
  Problem,
  RawAnswer,
  Vocabulary,
} from '@tolvek/core/register';
import { createContext, useContext } from 'react';

export interface InputProps<K extends KindName = KindName> {
  readonly id: string;
  /** What its field is called. */
  readonly label: string;
  /** What its field is called in the register; empty where there is none. */
  readonly fieldKey: string;
  readonly type: Extract<Kind, { kind: K }>;
  readonly value: RawAnswer;
  readonly onChange: (value: RawAnswer) => void;
  readonly onBlur?: () => void;
  readonly describedBy: string | undefined;
  readonly invalid: boolean;
  readonly disabled?: boolean | undefined;
  /** What is wrong in which cell of line items. */
  readonly cells?: readonly Problem[] | undefined;
  /** What may be done with line items, where not the same may be done with all of their columns. */
  readonly lines?: VisibleLines | undefined;
}

export interface FieldInputProps extends Omit<InputProps, 'type' | 'label' | 'fieldKey'> {
  readonly field: Pick<Field, 'label' | 'type'> & { readonly key?: string };
  /** The options that a rule left; all when it is null. */
  readonly offers?: readonly string[] | null | undefined;
}

export const typed = (value: RawAnswer): string => (value === null || typeof value === 'object' ? '' : String(value));

/** What inputs know besides their field: who can be picked, and the day at the desk. */
export interface AroundFields {
  readonly people: readonly KnownPerson[];
  readonly today: string;
  readonly now: string;
  readonly files: readonly KnownFile[];
  readonly vocabularies: readonly Vocabulary[];
  /** Requests that references point to, as far as they are known here. */
  readonly references: readonly KnownRequest[];
  /** Asks what a reference offers for words looked for; null where nothing can be asked. */
  readonly offers:
    | ((
        field: string,
        find: string,
      ) => Promise<{
        readonly offers: readonly KnownRequest[];
        readonly cards: Readonly<Record<string, OfferCard>>;
        readonly more: boolean;
      }>)
    | null;
  /** Where the picture on a card of a field is; null where nothing is chosen by cards. */
  readonly cardPicture: ((field: string, file: string) => string) | null;
  /** Makes a request known that was chosen. */
  readonly know: ((request: KnownRequest) => void) | null;
  /**
   * Sends a file for a field; null where files can’t be sent. `told` hears how much of it has gone,
   * from 0 to 1.
   */
  readonly upload: ((field: string, file: File, told: (part: number) => void) => Promise<KnownFile>) | null;
  /** Whether a file is on its way: what it belongs to is not saved before it is here. */
  readonly isOnTheWay?: boolean;
}

/** Where nothing is known, and nothing can be asked or sent. */
export const NOTHING_KNOWN: AroundFields = {
  people: [],
  today: '',
  now: '',
  files: [],
  vocabularies: [],
  references: [],
  offers: null,
  cardPicture: null,
  know: null,
  upload: null,
};

const Around = createContext<AroundFields>(NOTHING_KNOWN);
export const AroundFieldsProvider = Around.Provider;
export const useAroundFields = (): AroundFields => useContext(Around);

/** Answers, and which of them are looked at together. */
interface Beside {
  readonly answers: Readonly<Record<string, RawAnswer | undefined>>;
  readonly together: readonly (readonly string[])[];
}

const BesideFields = createContext<Beside>({ answers: {}, together: [] });
export const AnswersBesideProvider = BesideFields.Provider;

/** The answers that what a field offers hangs on, as one text: another when one of them is another. */
export function useAnswersBeside(field: string): string {
  const { answers, together } = useContext(BesideFields);
  const keys = together.flatMap(([first, ...rest]) => (first === field ? rest : []));
  return JSON.stringify(keys.map((key) => answers[key] ?? null));
}
