export { freshKey } from '../own/index.ts';
export { askedBy, type Unasked } from './askedBy.ts';
export { askedForm } from './askedForm.ts';
export { compareDesigns, type DesignChange, updatesInWords } from './compare.ts';
export {
  type AskedQuestion,
  answersToSend,
  type Completion,
  isUnanswered,
  prepareCompletion,
  refusalsOf,
  type ShownPart,
} from './complete.ts';
export {
  type Action,
  type ActionName,
  type AskedForm,
  addedParts,
  allQuestionsOf,
  type Difference,
  type Edition,
  type Elsewhere,
  END,
  FIRST_PAGE,
  type FormDesign,
  type FormRule,
  fieldsAsked,
  type Instruction,
  type NamedAction,
  OWN_PARTS,
  type OwnPart,
  type Page,
  type Part,
  partKey,
  type Question,
  questionsOf,
  type Section,
  type UniqueRule,
  type Updates,
  type WhenHidden,
} from './design.ts';
export {
  ASKING,
  ASKS,
  aboutPart,
  type Chosen,
  chooseEdition,
  differenceInWords,
  differenceKey,
  editionOf,
  formsLedTo,
  type Layout,
  type LeadingEdition,
  layoutOf,
  leadsByAnswers,
  ledByAnswers,
  type Opening,
  type Verdict,
  verdictInWords,
  whoGets,
  withOwnParts,
} from './editions/index.ts';
export type { Said } from './effects.ts';
export type { Allowance, Finding } from './findings/finding.ts';
export { findingsOf, namesUsed, type Surroundings } from './findings/findings.ts';
export { applyFix, type Fix, fixInWords, withoutTarget } from './findings/fix.ts';
export { flowFindings } from './findings/flow.ts';
export { type SkillsAround, skillWord } from './findings/handlers.ts';
export { broughtFindings, type KnownRegister } from './findings/named.ts';
export { type Reached, reachOf } from './findings/reach.ts';
export { type Kept, prepareKeeping } from './keep.ts';
export { FORM } from './kind.ts';
export { type FieldsTogether, fieldsTogether, pageKeys, placesOf } from './layout.ts';
export { mergeDesigns } from './merge.ts';
export { actionsIn, type Joining, placeFor, type TakingPart, takingPart, withPlaceOf } from './namedActions.ts';
export {
  fieldsBrought,
  fieldsOnCards,
  isReferring,
  lookedAtTogether,
  notOffered,
  type Obstacles,
  type OfferObstacles,
  type OfferTest,
  offerScope,
  prepareObstacles,
  prepareOffer,
} from './offers.ts';
export { askedInWordsOf, draftAfter, fieldsBy, formInto, registerAfter, takenFrom } from './ofRegister.ts';
export { ofToday } from './olderFile.ts';
export { hasOwn } from './own.ts';
export { protectionOf, type RanRule, withoutTelling } from './protection.ts';
export {
  asking,
  blankDesign,
  designFromRows,
  designOf,
  type Ground,
  guessKind,
  RECIPES,
  type Recipe,
  recipeLabel,
  recipeSays,
} from './recipes/index.ts';
export {
  mergePlans,
  mergeSettings,
  REGISTER,
  type RegisterContent,
  type RegisterSettings,
  settingsOf,
} from './registerDesign.ts';
export { requesterReadBy } from './requesterRead.ts';
export { rostersNamed } from './rostersNamed.ts';
export { type FormSink, sinksOf } from './sinks.ts';
export {
  answerSchema,
  type FormFile,
  formFile,
  groupsNeeded,
  type JsonSchema,
  type Needs,
  namedBy,
  type Places,
  type Protecting,
  protectedHere,
  settledHere,
} from './takeAlong.ts';
export { inLanguage, readIn } from './translated.ts';
export {
  type FormText,
  spokenAlso,
  textsToTranslate,
  translationOf,
  withTranslation,
} from './translating.ts';
export { type TakenBack, type TextUnit, textsIn, textsOut, type UnitOut } from './translators.ts';
export { claimOf } from './unique.ts';
export {
  type Changeable,
  type Choice,
  changedOver,
  choiceOf,
  completedOver,
  type Meant,
  meantBy,
  OWN_REQUESTS,
  saidIn,
  stoodIn,
} from './updates.ts';
export { actionInWords, expressionInWords, partName, presetInWords, ruleInWords, whenInWords } from './words.ts';
