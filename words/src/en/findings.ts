export const findings = {
  limitIsCondition: 'What limits the list is not a condition. Write a condition that is true or not true.',
  noTitle: 'The form has no title. People would not find it. Enter a title.',
  noQuestion: 'The form has no questions yet. Add a question.',
  nameMissesField: 'The name in lists uses “{{field}}”, and this field does not exist. Remove it from the name.',
  uniqueMissesField: 'A duplicate check uses a field that does not exist. It would find nothing. Choose another field.',
  optionWithoutRow:
    '“{{label}}” has the option “{{option}}”, and no row mentions it. Such requests use the last row. Add a row if that is wrong.',
  stepStranger:
    'The approval step “{{step}}” asks a person who is no longer here. Nobody could decide. Choose who decides.',
  stepLostGroup:
    'The approval step “{{step}}” asks a group that does not exist. Nobody could decide. Choose another group.',
  stepWrong: 'When the approval step “{{step}}” is asked: {{message}}',
  stepUnnamed: 'An approval step has no name. Give it a name.',
  stepsAllConditional:
    'Every approval step is asked only sometimes. Where none of them is asked, nobody decides and the work begins at once. Ask one step always, or leave it so.',
  handlerGone: 'This row makes a person the handler who is no longer here. Choose somebody else.',
  handlerLostField:
    'This row makes whoever a field names the handler, and it is no field for a person. Choose another field.',
  handlerNobody: 'Nobody is in the team of this row, so nobody could be made the handler. Add people to the team.',
  handlerLostRoster: 'This row asks who is on duty by a roster that does not exist. Choose another roster.',
  rosterGap:
    'Nobody is on duty by “{{roster}}” at {{at, moment}}. Complete the roster, or name a person as the last way.',
  handlerMayLack: 'An answer or an earlier request may name nobody, and then nobody is the handler. Add another way.',
  handlerNoSkills:
    'This row looks for a skill, and the desk names no register of skills. Choose the register in the groundwork, under “Skills”.',
  handlerLostSkill: 'This row looks for a skill that does not exist. Choose another skill.',
  handlerUnskilled:
    'Nobody in the team of this row has the skill at this level today. Change the level, or add another way.',
  followerLostGroup: 'This row has a group follow requests that does not exist. Choose another group.',
  followerGone: 'This row has a person follow requests who is no longer here. Choose somebody else.',
  wishLostField: 'The routing names a field for a wish of the requester that does not exist. Choose another field.',
  followerReadsNothing:
    'Nobody of “{{who}}” can read these requests, so they would hear of none. Name them as readers in the access plan, or remove them.',
  followerLostField:
    'This row has whoever a field names follow requests, and it is no field for a person. Choose another field.',
  rowLostPath: 'This row names an approval path that does not exist. Choose another path.',
  pathAllConditional:
    'Every step of the approval path “{{path}}” is asked only sometimes. Where none of them is asked, nobody decides and the work begins at once. Ask one step always, or leave it so.',
  pathUnused: 'No row of the routing table chooses the approval path “{{path}}”. Choose it in a row, or remove it.',
  stepLostRoster:
    'The approval step “{{step}}” asks who is on duty by a roster that does not exist. Choose another roster.',
  stepRosterGap:
    'Nobody is on duty by “{{roster}}” at {{at, moment}}, and the approval step “{{step}}” asks it. Complete the roster.',
  stepLostField:
    'The approval step “{{step}}” asks whoever a field names that is no field for a person, or does not exist. Choose another field.',
  limitTooLong: 'The approval step “{{step}}” may take more than 400 days. Choose a shorter time.',
  remindsTooEarly: 'The approval step “{{step}}” would remind people before they are asked. Choose a shorter time.',
  passesToNobody:
    'When nobody answers, the approval step “{{step}}” asks somebody else, and nobody is named. Choose who decides instead.',
  stepMayLack:
    'The approval step “{{step}}” asks whom an answer names. Where it names nobody, or the requester, nobody could decide. Choose who decides instead.',
  stepReadsNothing:
    'The approval step “{{step}}” asks {{name}} from outside, and the access plan shows them nothing of a request. Open fields to people from outside.',
  stepTooFew:
    'Too few people could decide at the approval step “{{step}}” today. Requests would wait. Add people to its groups, or choose who decides instead.',
  stepTooMany:
    'The approval step “{{step}}” needs more approvals than it asks groups or people. Requests would wait forever. Ask more, or need fewer.',
  fieldTwice: 'A field is on the form twice. Remove one of the questions.',
  partTwice: 'Two parts have the same key. Remove one and add it again.',
  emptyText: 'A text between questions is empty. Write it, or remove it.',
  textMissesField:
    'A text between questions uses “{{field}}”, and this field does not exist. People would read “…”. Remove it from the text.',
  questionMissesField:
    'A question is about a field that does not exist. Its answer would be lost. Remove the question.',
  staffPicker:
    '“{{label}}” lists staff, so people from outside will not see this question. Use another kind if they should answer it.',
  pickerLostGroup:
    '“{{label}}” lists the members of a group that does not exist. Nobody could be chosen. Choose another group.',
  sectionNoTitle: 'A section has no title. Enter one.',
  pageNoTitle: 'A page has no title. Enter one.',
  noLabel: 'A field has no name. People could not read the list. Enter a name.',
  sameLabel: 'Two fields have the name “{{label}}”. People cannot tell them apart in lists. Rename one.',
  unusedField:
    '“{{label}}” is not on the form, and nothing else uses it. It would always be empty. Add a question for it, or remove the field.',
  noOptions: '“{{label}}” has no options, so nobody can answer it. Add an option.',
  optionNoLabel: 'An option of “{{label}}” has no name. Enter one.',
  fewLevels: 'The scale of “{{label}}” has fewer than two levels. Add one.',
  levelsNotRising:
    'The levels of “{{label}}” do not rise from one to the next, so they cannot be compared. Change their order.',
  lowestAboveHighest:
    '“{{label}}”: the lowest value is above the highest, so no answer is possible. Correct one of them.',
  linesAskNothing: 'The lines of “{{label}}” have no column to fill in. Add a column.',
  columnNoLabel: 'A column of “{{label}}” has no name. Enter one.',
  'notAskable.desk-only': '“{{label}}” is staff-only, so it cannot be on the form. Remove the question.',
  'notAskable.computed': '“{{label}}” is computed, so it cannot be on the form. Remove the question.',
  'notAskable.given': '“{{label}}” is given automatically, so it cannot be on the form. Remove the question.',
  'notAskable.carried': '“{{label}}” comes from another register, so it cannot be on the form. Remove the question.',
  aColumn: 'a column',
  columnOf: '{{field}}, {{column}}',
  defaultOf: 'Default of {{label}}',
  formulaWrong: '“{{label}}”: {{message}}',
  computedAs:
    '“{{label}}” is computed as {{gives}}, but the field has {{wants}}. Change the formula, or the kind of the field.',
  presetWrong: 'The default of “{{label}}” is not possible: {{message}} {{fix}}',
  presetLostField: 'The default of “{{label}}” is a field that does not exist. Choose another default.',
  presetOtherField: 'The default of “{{label}}” is “{{other}}”, which is of another kind. Choose another default.',
  'presetOther.today':
    'The default of “{{label}}” is a day, which does not fit this kind of field. Choose another default.',
  'presetOther.now':
    'The default of “{{label}}” is a date and time, which does not fit this kind of field. Choose another default.',
  'presetOther.me':
    'The default of “{{label}}” is a person, which does not fit this kind of field. Choose another default.',
  'presetOther.department':
    'The default of “{{label}}” is the name of a team, which does not fit this kind of field. Choose another default.',
  lostVocabulary: '“{{label}}” uses a vocabulary that does not exist. Nobody could answer. Choose one.',
  lostBranch:
    '“{{label}}” uses a part of “{{vocabulary}}” that does not exist. Nobody could answer. Choose another part.',
  numberNeedsPrefix: 'The running number “{{label}}” has nothing before its digits. Enter something like SA-.',
  numberIsGiven: '“{{label}}” is a running number and given automatically. It cannot be filled in. Change its source.',
  onlyNumbersGiven: '“{{label}}” is given automatically, and only running numbers can be. Change its source.',
  lostRegister: '“{{label}}” refers to a register that does not exist. Nobody could answer. Choose one.',
  showsLostField: '“{{label}}” shows a field that “{{register}}” does not have. Remove it.',
  noPictures:
    'The cards of “{{label}}” have “{{field}}” for a picture, and that is no field for files. Choose a field for files.',
  showsOnlyNumbers:
    '“{{label}}” shows only the numbers of “{{register}}”. People would not recognise them. Choose the fields they know.',
  offerWrong: '“{{label}}”, limit of the list: {{message}}',
  carriedLostReference:
    '“{{label}}” comes from a reference that does not exist. It would stay empty. Choose another reference.',
  carriedLostField:
    '“{{label}}” comes from a field that “{{register}}” does not have. It would stay empty. Choose another field.',
  carriedOtherKind: '“{{label}}” comes from “{{source}}”, which is of another kind. Choose a field of the same kind.',
  wouldShow:
    '“{{label}}” would show “{{field}}”, and the access plan of “{{register}}” hides that from some people. Remove it.',
  wouldTest:
    '“{{label}}” is limited by “{{field}}”, and the access plan of “{{register}}” hides that from some people. Remove it from the limit.',
  outsideSearch:
    '“{{label}}”: people from outside can search “{{register}}” by {{fields, and}}. Limit the list if they should not.',
  byNumber: 'number',
  ruleRetired:
    'The rule “{{rule}}” tests for “{{option}}” of “{{field}}”, which nobody can choose any more. Remove it from the condition.',
  stepRetired:
    'The approval step “{{step}}” tests for “{{option}}” of “{{field}}”, which nobody can choose any more. Remove it from the condition.',
  rowRetired: 'Row {{row}} tests for “{{option}}” of “{{field}}”, which nobody can choose any more. Change the cell.',
  ruleIdle: 'The rule “{{rule}}” does nothing yet. Add an action, or remove the rule.',
  ruleOnlyFills:
    'The rule “{{rule}}” only fills in a field. A default does the same, and people can change it. Use a default instead.',
  ruleWrong: 'The rule “{{rule}}”: {{message}}',
  ruleAlwaysElse:
    'The condition of the rule “{{rule}}” is always true, so its “otherwise” never happens. Change the condition, or remove that part.',
  ruleAlwaysShow:
    'The condition of the rule “{{rule}}” is always true, so its questions are always shown. Remove the rule.',
  ruleNeverThen:
    'The condition of the rule “{{rule}}” is never true, so only its “otherwise” happens. Change the condition.',
  ruleNever:
    'The condition of the rule “{{rule}}” is never true, so the rule does nothing. Change the condition, or remove the rule.',
  neverShown:
    '“{{label}}” is never shown, because no rule that shows it can be true. Change a condition, or remove it from the form.',
  rulesContradict:
    'The rules “{{first}}” and “{{second}}” contradict each other about “{{label}}” when both are true. “{{later}}” counts, because it is later. Change one if that is wrong.',
  rulesNotCompared:
    '“{{first}}” and the {{count}} rules after it were not checked for contradictions. There are too many cases. Make their conditions simpler, or split the form.',
  ruleOffersRetired:
    'The rule “{{rule}}” offers options of “{{label}}” that nobody can choose any more. Remove them from the rule.',
  aText: 'A text',
  circleSelf: '“{{label}}” depends on itself, so it has no clear value. Change one of the rules.',
  circle: 'These fields depend on each other, so they have no clear value: {{labels, names}}. Change one of the rules.',
  'rule.partGone': 'The rule “{{rule}}” shows or hides a part that is not on the form. Remove it from the rule.',
  'rule.fieldGone': 'The rule “{{rule}}” uses a field that does not exist. Remove it from the rule.',
  'rule.requiresUnasked':
    'The rule “{{rule}}” requires “{{label}}”, which is not on the form. Nobody could send it. Remove it from the rule.',
  'rule.limitsNoOptions': 'The rule “{{rule}}” limits the options of a field that has none. Remove this action.',
  'rule.leavesNothing':
    'The rule “{{rule}}” leaves no option of “{{label}}”, so nobody could answer. Choose an option.',
  'rule.warnsEmpty': 'The rule “{{rule}}” warns without a text. Write the text.',
  'rule.refusesEmpty': 'The rule “{{rule}}” refuses without a text. People would not know why. Write the text.',
  'rule.saysNowhere': 'The rule “{{rule}}” shows its text at a field that does not exist. Choose another place.',
  'rule.jumpsNowhere': 'The rule “{{rule}}” goes from or to a page that is not on the form. Choose another page.',
  'rule.setsComputed': 'The rule “{{rule}}” sets “{{label}}”, which is computed. Remove this action.',
  'rule.setsWrong': 'The rule “{{rule}}” sets “{{label}}”: {{message}}',
  'rule.setsOther': 'The rule “{{rule}}” sets “{{label}}” to {{gives}}, but the field has {{wants}}. Change the value.',
  editionNever:
    '“{{edition}}” is never given. Everybody it is for gets “{{before}}” before. Move it up, or change whom it is for.',
  editionGetsNobody: 'Nobody gets “{{edition}}” today. Change whom it is for, or its condition.',
  editionGetsBefore: 'Nobody gets “{{edition}}” today, because whoever it fits gets one before it. Move it up.',
  editionNoName: 'This edition has no name. Enter a name.',
  editionNobody: '“{{edition}}” is for nobody. Choose whom it is for.',
  editionLostGroup: '“{{edition}}” names a group that does not exist. Choose another group.',
  editionGonePerson: '“{{edition}}” names somebody who is not active any more. Choose somebody else.',
  editionLostStage: '“{{edition}}” names a stage that does not exist. Remove the stage.',
  editionNoStage: '“{{edition}}” is given at no stage. Choose a stage.',
  editionBeforeAnswers:
    '“{{edition}}” depends on answers, and is chosen before there are any. Nobody gets it. Change the condition, or choose a stage.',
  editionLeadsUnasked:
    '“{{edition}}” leads elsewhere by “{{field}}”, which this form does not ask. It leads nobody. Change the condition.',
  editionNoDifference: '“{{edition}}” differs in nothing. Change something in it, or remove it.',
  editionLostPart: '“{{edition}}” changes “{{name}}”, which is not on the form any more. Remove this difference.',
  editionShowsLost: '“{{edition}}” shows questions that are not on the form any more. Remove them from its list.',
  editionHidesIt: '“{{edition}}” changes “{{name}}” and hides it as well. Remove one of the two.',
  'editionIdle.required': '“{{edition}}” requires “{{name}}”. The form does so itself. Remove this difference.',
  'editionIdle.spared': '“{{edition}}” does not require “{{name}}”. The form does not either. Remove this difference.',
  'editionIdle.worded': '“{{edition}}” says of “{{name}}” what the form says. Remove this difference.',
  'editionIdle.locked':
    '“{{edition}}” requires “{{name}}” and locks it. What can’t be filled in is not required. Remove one of the two.',
  editionHidesRequired:
    '“{{edition}}” hides “{{name}}”, which the form requires. It stays empty there. Give it a default, or leave it on the form.',
  editionLostPlace:
    '“{{edition}}” puts “{{name}}” after something that is not on the form any more. Choose another place.',
  editionAddsTwice: '“{{edition}}” asks “{{name}}”, which the form asks itself now. Remove this difference.',
  buttonNoWords: '“{{edition}}” has a button without words. Write what it says.',
  buttonNoList:
    '“{{label}}” in “{{edition}}” enters people in a field that is not for several people. Choose another field.',
  buttonNoPath: '“{{label}}” in “{{edition}}” begins an approval path that does not exist. Choose another path.',
  againMissesField:
    'The approval path “{{path}}” asks again when a field changes that does not exist. Remove the field.',
  buttonNobody: '“{{label}}” in “{{edition}}” asks a field that is not for one person. Choose another field.',
  buttonNever: '“{{edition}}” has buttons and is only for filling in, where they do not show. Choose stages as well.',
  editionAddsLost: '“{{edition}}” asks for a field that does not exist. Its answer would be lost. Remove the question.',
  editionAddsUnasked: '“{{edition}}” asks “{{name}}”, which no form can ask. Remove the question.',
  editionNoChoice: '“{{edition}}” offers options of “{{name}}”, which is no choice any more. Remove this difference.',
  editionOffersNone: '“{{edition}}” leaves no option of “{{name}}”. Nobody could answer. Add an option.',
  editionOffersAll: '“{{edition}}” offers all options of “{{name}}”, as the form does. Remove this difference.',
  editionOffersLost: '“{{edition}}” offers options of “{{name}}” that do not exist any more. Choose the options again.',
  editionCircle:
    'The defaults of “{{edition}}” depend on each other in a circle. Nothing would be filled in. Change one of them.',
  editionMissesStages:
    'These editions tell stages apart, and none is given at: {{stages, list}}. The form as it is applies there. Add these stages if that is wrong.',
  editionMissesOptions:
    'The editions tell apart what “{{label}}” is, and none is given for: {{options, list}}. Add a condition for them if that is wrong.',
  updatesWhose: 'This form changes what is there, but does not say whose. Choose a field for a person.',
  updatesNobody: 'What this form adds would belong to nobody, because it does not ask “{{label}}”. Add the question.',
  updatesOutside:
    '“{{label}}” names staff, so people from outside find nothing of theirs. Choose another field, or close the door for people from outside.',
  updatesBy:
    'This form looks for an entry by “{{label}}”, but does not ask for it. Add the question, or do not look by it.',
  updatesByWhose:
    '“{{label}}” says whose the entry is already. Remove it from the answers by which the entry is found.',
  updatesNothing: 'This form changes what is there, but asks nothing that could change. Add a question.',
  updatesStamp: 'The day of the last answer needs a date that only the desk fills in. Choose another field.',
  publicNames_one:
    'Requesters from outside read {{fields, names}} by the name that staff use. Enter what they read, or let them read this name.',
  publicNames_other:
    'Requesters from outside read {{fields, names}} by the names that staff use. Enter what they read, or let them read these names.',
  knownFromProfile:
    '“{{label}}” asks what stands in people’s profiles already. Use the profile as the default, or remove the question.',
  knownFromDoor:
    '“{{label}}” asks people from outside for an email address, and they give theirs before they send anyway. Remove the question, or make it optional.',
  notTranslated_one:
    '{{language}}: {{count}} text is not translated. People read it as it is written. Enter the translation.',
  notTranslated_other:
    '{{language}}: {{count}} texts are not translated. People read them as they are written. Enter the translations.',
  termsNotTranslated_one:
    '{{language}}: {{count}} term of “{{name}}” is not translated. People read it as it is written. Enter the translation with the vocabulary.',
  termsNotTranslated_other:
    '{{language}}: {{count}} terms of “{{name}}” are not translated. People read them as they are written. Enter the translations with the vocabulary.',
  translatedBefore_one:
    '{{language}}: {{count}} text has changed since it was translated. People read it as it is written. Check the translation.',
  translatedBefore_other:
    '{{language}}: {{count}} texts have changed since they were translated. People read them as they are written. Check the translations.',
  translatedBeyond_one:
    '{{language}}: {{count}} translation names a field that its text does not name. People read the text as it is written. Remove the field.',
  translatedBeyond_other:
    '{{language}}: {{count}} translations name fields that their texts do not name. People read the texts as they are written. Remove the fields.',
  editionElsewhereStages: '“{{edition}}” leads elsewhere, and is not given while somebody asks. Choose “while asking”.',
  editionElsewhereHost:
    '“{{edition}}” leads to an address that is not allowed. Allow its host under Groundwork, Desk, or choose one of these: {{hosts, list}}.',
  editionElsewhereItself: '“{{edition}}” leads to this form itself. Choose another form.',
  editionElsewhereLost:
    '“{{edition}}” leads to a form that does not exist or is not in use. People would get this form. Choose another form.',
  editionElsewhereRound:
    '“{{edition}}” may lead back here: {{forms, list}}. Whoever goes round gets this form. Change one of the editions.',
  deadlineTwice: 'Two deadlines are called “{{name}}”. Give one another name.',
  deadlineWrong: 'When the deadline “{{deadline}}” applies: {{message}}',
  deadlineFormula: 'How long the deadline “{{deadline}}” is: {{message}}',
  deadlineNoNumber:
    'The formula of the deadline “{{deadline}}” does not give a number. Nothing would be due. Correct the formula.',
  deadlineLostField:
    'The deadline “{{deadline}}” follows a field that is no date, or does not exist. Nothing would be due. Choose another field.',
  deadlineTooLong: 'The deadline “{{deadline}}” has no length, or one of more than 400 days. Enter another length.',
  deadlineNeverLeft:
    'The deadline “{{deadline}}” ends when its stages are left, but it begins with the request. Choose the stages it begins in, or another end.',
  deadlineNoStage: 'The deadline “{{deadline}}” waits for a stage, and no stage is chosen. Choose a stage.',
  deadlineLostStage: 'The deadline “{{deadline}}” names a stage that does not exist. Choose another stage.',
  ringTooFar: 'The deadline “{{deadline}}” does something more than 400 days away. Choose a shorter time.',
  ringLostGroup:
    'The deadline “{{deadline}}” names a group that does not exist. Nobody would hear of it. Choose another group.',
  ringLostRoster:
    'The deadline “{{deadline}}” tells whoever is on duty by a roster that does not exist. Choose another roster.',
  ringLostField:
    'The deadline “{{deadline}}” tells whoever a field names, and it is no field for a person. Choose another field.',
  ringLostPath: 'The deadline “{{deadline}}” begins an approval path that does not exist. Choose another path.',
  ringIdle:
    'At one of its times the deadline “{{deadline}}” tells nobody and does nothing. Choose who is told, or remove it.',
} as const;
