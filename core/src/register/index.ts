export { cellOf, comesInCells, guarded, typedFromCell, unguarded } from './cells.ts';
export type {
  CarriedField,
  ChoiceOption,
  Field,
  FieldValue,
  FileGroup,
  FilledField,
  ItemColumn,
  ItemRow,
  Kind,
  KindName,
  KnownFile,
  KnownPerson,
  KnownRequest,
  Level,
  Money,
  OfferCards,
  Preset,
  RawAnswer,
  RawAnswers,
  RawRow,
  RawSingle,
  ReferenceKind,
  Single,
  SingleKind,
  Values,
} from './field.ts';
export { isFilled, OPTION_COLOURS, type OptionColour } from './field.ts';
export { hostAllowed, isHost, isOrigin } from './hosts.ts';
export { asKind, fitsAsHeld, KIND_CHANGES, mayBecome } from './kindChanges.ts';
export { type KindObjection, kindObjections, optionObjections } from './kindObjections.ts';
export { dateInWords } from './kinds/date.ts';
export { momentOfDayInWords } from './kinds/dateTime.ts';
export { isMailAddress } from './kinds/email.ts';
export {
  bytesInWords,
  endingsOf,
  FILE_LIMITS,
  fileId,
  fileName,
  fileObjection,
  firstFile,
  mediaByName,
  WITH_MESSAGE,
} from './kinds/files.ts';
export {
  expressionValue,
  itemScope,
  itemsShown,
  KIND_NAMES,
  namesAround,
  readAnswer,
  readLines,
  sayValue,
  scopeTypeOf,
  showValue,
  storedForm,
  typedForm,
  valueFromExpression,
} from './kinds/index.ts';
export { type Around, type NameOf, NOTHING_AROUND, type ReadAnswer } from './kinds/kind.ts';
export { type ItemsShown, linesComeAndGo } from './kinds/lineItems.ts';
export { placesOf } from './kinds/number.ts';
export { numberPrefix, numberWith } from './kinds/runningNumber.ts';
export { termAddress } from './kinds/term.ts';
export { mergedText } from './mergedText.ts';
export {
  askedByMoves,
  MOVER_WORDS,
  type MovedBy,
  moveFindings,
  moversInWords,
  moveScope,
  movesFrom,
  type PossibleMove,
} from './moves.ts';
export { orderProblems } from './orderProblems.ts';
export { columnKey, columnNamed, columnsOf, fieldKeyOf, partsOf, withCells, withColumns } from './parts.ts';
export { namedIn, personMeets, personScope } from './personCondition.ts';
export type { Problem } from './problem.ts';
export {
  DIRECTORY_ATTRIBUTES,
  type DirectoryAttribute,
  NO_PROFILE,
  PERSON_ENTRIES,
  type Profile,
  type ProfileField,
  type ProfileKind,
  type ProfileType,
  profileWith,
} from './profile.ts';
export { designsNamed } from './refersTo.ts';
export { FACT_NAMES, factSlots, type RequestFacts, requestScope, requestSlots } from './requestScope.ts';
export { identifiedRows, ROW_ID, rowIdOf, withoutRowIds, withRowIds } from './rowIds.ts';
export { type SpreadsheetCell, type SpreadsheetKind, spreadsheetCell, spreadsheetKind } from './spreadsheet.ts';
export {
  MOVERS,
  type Move,
  type MoverRelation,
  mayBegin,
  PARTY_RELATIONS,
  type PartyRelation,
  type Phase,
  type Priority,
  priorities,
  type Stage,
  stagesToFreeTo,
  stagesToMoveTo,
  stageToBegin,
} from './stage.ts';
export {
  type KnownStanding,
  meOf,
  type RequestStanding,
  requestOf,
  type StandingViewer,
  standingScope,
  standingSlots,
} from './standingScope.ts';
export { calledFields, fieldSaid, fieldsIn, publicLabelIn } from './translated.ts';
export {
  MOST_TERMS,
  mergeTerms,
  type PlacedTerm,
  type Term,
  termByKey,
  termMeant,
  termPath,
  termsInOrder,
  termsLeft,
  termsOffered,
  type Vocabulary,
  vocabularyIn,
  vocabularyProblems,
} from './vocabulary.ts';
export { VOCABULARY, type VocabularyContent } from './vocabularyDesign.ts';
