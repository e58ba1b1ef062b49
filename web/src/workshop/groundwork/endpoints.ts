import type { AnswerOf } from '@tolvek/contract';
import { api } from '../../wire/api.ts';
import type { Asked } from '../../wire/call.ts';
import { call } from '../../wire/callAny.ts';

/** Laying the ground: the desk, people and groups. */
export const groundApi = api.injectEndpoints({
  endpoints: (build) => ({
    groundwork: build.query<AnswerOf<'groundwork'>, Asked<'groundwork'>>({
      query: call('groundwork'),
      providesTags: ['ground', 'forms', 'register'],
    }),
    deskSettings: build.query<AnswerOf<'deskSettings'>, Asked<'deskSettings'>>({
      query: call('deskSettings'),
      providesTags: ['ground'],
      keepUnusedDataFor: 0,
    }),
    changeDesk: build.mutation<AnswerOf<'changeDesk'>, Asked<'changeDesk'>>({
      query: call('changeDesk'),
      invalidatesTags: ['ground', 'me'],
    }),
    sentEmails: build.query<AnswerOf<'sentEmails'>, Asked<'sentEmails'>>({
      query: call('sentEmails'),
      keepUnusedDataFor: 0,
      providesTags: ['emails'],
    }),
    sendEmailAgain: build.mutation<AnswerOf<'sendEmailAgain'>, Asked<'sendEmailAgain'>>({
      query: call('sendEmailAgain'),
      invalidatesTags: ['emails'],
    }),
    skills: build.query<AnswerOf<'skills'>, Asked<'skills'>>({
      query: call('skills'),
      providesTags: ['ground', 'ledger', 'people', 'register'],
      keepUnusedDataFor: 0,
    }),
    sendTestEmail: build.mutation<AnswerOf<'sendTestEmail'>, Asked<'sendTestEmail'>>({
      query: call('sendTestEmail'),
      invalidatesTags: ['ground'],
    }),
    testEmail: build.query<AnswerOf<'testEmail'>, Asked<'testEmail'>>({
      query: call('testEmail'),
      keepUnusedDataFor: 0,
    }),
    addAbsence: build.mutation<AnswerOf<'addAbsence'>, Asked<'addAbsence'>>({
      query: call('addAbsence'),
      invalidatesTags: ['people', 'me'],
    }),
    endAbsence: build.mutation<AnswerOf<'endAbsence'>, Asked<'endAbsence'>>({
      query: call('endAbsence'),
      invalidatesTags: ['people', 'me'],
    }),
    lookAtPeople: build.mutation<AnswerOf<'lookAtPeople'>, Asked<'lookAtPeople'>>({ query: call('lookAtPeople') }),
    importPeople: build.mutation<AnswerOf<'importPeople'>, Asked<'importPeople'>>({
      query: call('importPeople'),
      invalidatesTags: ['people', 'groups', 'ground', 'me'],
    }),
    peopleImports: build.query<AnswerOf<'peopleImports'>, Asked<'peopleImports'>>({
      query: call('peopleImports'),
      providesTags: ['people'],
    }),
    undoImport: build.mutation<AnswerOf<'undoImport'>, Asked<'undoImport'>>({
      query: call('undoImport'),
      invalidatesTags: ['people', 'groups', 'ground', 'me'],
    }),
    mergePlan: build.query<AnswerOf<'mergePlan'>, Asked<'mergePlan'>>({
      query: call('mergePlan'),
      keepUnusedDataFor: 0,
    }),
    mergePeople: build.mutation<AnswerOf<'mergePeople'>, Asked<'mergePeople'>>({
      query: call('mergePeople'),
      invalidatesTags: ['people', 'groups', 'ground', 'me', 'ledger', 'sheet', 'mine'],
    }),
    stepBackPlan: build.query<AnswerOf<'stepBackPlan'>, Asked<'stepBackPlan'>>({
      query: call('stepBackPlan'),
      keepUnusedDataFor: 0,
    }),
    groundDeletion: build.query<AnswerOf<'groundDeletion'>, Asked<'groundDeletion'>>({
      query: call('groundDeletion'),
      keepUnusedDataFor: 0,
    }),
    deleteGround: build.mutation<AnswerOf<'deleteGround'>, Asked<'deleteGround'>>({
      query: call('deleteGround'),
      invalidatesTags: ['people', 'groups', 'ground', 'calendar', 'roster', 'vocabulary'],
    }),
    sayWhy: build.mutation<AnswerOf<'sayWhy'>, Asked<'sayWhy'>>({
      query: call('sayWhy'),
      invalidatesTags: ['people', 'groups', 'ground'],
    }),
    stepBack: build.mutation<AnswerOf<'stepBack'>, Asked<'stepBack'>>({
      query: call('stepBack'),
      invalidatesTags: ['people', 'groups', 'ground', 'me'],
    }),
    profile: build.query<AnswerOf<'profile'>, Asked<'profile'>>({
      query: call('profile'),
      providesTags: ['ground', 'people'],
    }),
    changeProfile: build.mutation<AnswerOf<'changeProfile'>, Asked<'changeProfile'>>({
      query: call('changeProfile'),
      invalidatesTags: ['ground', 'people', 'form', 'forms', 'desk'],
    }),
    setPortrait: build.mutation<AnswerOf<'setPortrait'>, Asked<'setPortrait'>>({
      query: call('setPortrait'),
      invalidatesTags: ['people', 'me'],
    }),
    setLogo: build.mutation<AnswerOf<'setLogo'>, Asked<'setLogo'>>({
      query: call('setLogo'),
      invalidatesTags: ['me', 'ground'],
    }),
    signInSettings: build.query<AnswerOf<'signInSettings'>, Asked<'signInSettings'>>({
      query: call('signInSettings'),
      providesTags: ['ground', 'people'],
      keepUnusedDataFor: 0,
    }),
    addProvider: build.mutation<AnswerOf<'addProvider'>, Asked<'addProvider'>>({
      query: call('addProvider'),
      invalidatesTags: ['ground'],
    }),
    changeProvider: build.mutation<AnswerOf<'changeProvider'>, Asked<'changeProvider'>>({
      query: call('changeProvider'),
      invalidatesTags: ['ground'],
    }),
    setPasswords: build.mutation<AnswerOf<'setPasswords'>, Asked<'setPasswords'>>({
      query: call('setPasswords'),
      invalidatesTags: ['ground'],
    }),
    endTheirCode: build.mutation<AnswerOf<'endTheirCode'>, Asked<'endTheirCode'>>({
      query: call('endTheirCode'),
      invalidatesTags: ['people'],
    }),
    directory: build.query<AnswerOf<'directory'>, Asked<'directory'>>({
      query: call('directory'),
      providesTags: ['people', 'groups', 'ground'],
      keepUnusedDataFor: 0,
    }),
    addDirectoryToken: build.mutation<AnswerOf<'addDirectoryToken'>, Asked<'addDirectoryToken'>>({
      query: call('addDirectoryToken'),
      invalidatesTags: ['ground'],
    }),
    endDirectoryToken: build.mutation<AnswerOf<'endDirectoryToken'>, Asked<'endDirectoryToken'>>({
      query: call('endDirectoryToken'),
      invalidatesTags: ['ground'],
    }),
    fillFromDirectory: build.mutation<AnswerOf<'fillFromDirectory'>, Asked<'fillFromDirectory'>>({
      query: call('fillFromDirectory'),
      invalidatesTags: ['people'],
    }),
    rights: build.query<AnswerOf<'rights'>, Asked<'rights'>>({
      query: call('rights'),
      providesTags: ['people', 'groups'],
    }),
    rightsOnDay: build.query<AnswerOf<'rightsOnDay'>, Asked<'rightsOnDay'>>({
      query: call('rightsOnDay'),
      providesTags: ['people', 'groups'],
      keepUnusedDataFor: 0,
    }),
    rightHolders: build.query<AnswerOf<'rightHolders'>, Asked<'rightHolders'>>({
      query: call('rightHolders'),
      providesTags: ['people', 'groups'],
    }),
    registerRights: build.query<AnswerOf<'registerRights'>, Asked<'registerRights'>>({
      query: call('registerRights'),
      providesTags: ['people', 'groups'],
    }),
    registerRightsPlan: build.query<AnswerOf<'registerRightsPlan'>, Asked<'registerRightsPlan'>>({
      query: call('registerRightsPlan'),
      keepUnusedDataFor: 0,
    }),
    setRegisterRights: build.mutation<AnswerOf<'setRegisterRights'>, Asked<'setRegisterRights'>>({
      query: call('setRegisterRights'),
      invalidatesTags: ['people', 'groups', 'me'],
    }),
    changeRights: build.mutation<AnswerOf<'changeRights'>, Asked<'changeRights'>>({
      query: call('changeRights'),
      invalidatesTags: ['people', 'groups', 'me'],
    }),
    calendars: build.query<AnswerOf<'calendars'>, Asked<'calendars'>>({
      query: call('calendars'),
      providesTags: ['calendar'],
    }),
    calendar: build.query<AnswerOf<'calendar'>, Asked<'calendar'>>({
      query: call('calendar'),
      providesTags: ['calendar'],
      keepUnusedDataFor: 0,
    }),
    createCalendar: build.mutation<AnswerOf<'createCalendar'>, Asked<'createCalendar'>>({
      query: call('createCalendar'),
      invalidatesTags: ['calendar', 'ground', 'me'],
    }),
    tryCalendar: build.query<AnswerOf<'tryCalendar'>, Asked<'tryCalendar'>>({
      query: call('tryCalendar'),
      keepUnusedDataFor: 0,
    }),
    changeCalendar: build.mutation<AnswerOf<'changeCalendar'>, Asked<'changeCalendar'>>({
      query: call('changeCalendar'),
      invalidatesTags: ['calendar', 'ground', 'me', 'ledger', 'sheet', 'mine'],
    }),
    rosters: build.query<AnswerOf<'rosters'>, Asked<'rosters'>>({
      query: call('rosters'),
      providesTags: ['roster', 'people'],
    }),
    roster: build.query<AnswerOf<'roster'>, Asked<'roster'>>({
      query: call('roster'),
      providesTags: ['roster'],
      keepUnusedDataFor: 0,
    }),
    createRoster: build.mutation<AnswerOf<'createRoster'>, Asked<'createRoster'>>({
      query: call('createRoster'),
      invalidatesTags: ['roster', 'ground', 'form'],
    }),
    changeRoster: build.mutation<AnswerOf<'changeRoster'>, Asked<'changeRoster'>>({
      query: call('changeRoster'),
      invalidatesTags: ['roster', 'ground', 'form'],
    }),
    programs: build.query<AnswerOf<'programs'>, Asked<'programs'>>({
      query: call('programs'),
      providesTags: ['program', 'groups'],
    }),
    program: build.query<AnswerOf<'program'>, Asked<'program'>>({
      query: call('program'),
      providesTags: ['program'],
      keepUnusedDataFor: 0,
    }),
    createProgram: build.mutation<AnswerOf<'createProgram'>, Asked<'createProgram'>>({
      query: call('createProgram'),
      invalidatesTags: ['program', 'ground', 'form'],
    }),
    changeProgram: build.mutation<AnswerOf<'changeProgram'>, Asked<'changeProgram'>>({
      query: call('changeProgram'),
      invalidatesTags: ['program', 'ground', 'form'],
    }),
    addProgramKey: build.mutation<AnswerOf<'addProgramKey'>, Asked<'addProgramKey'>>({
      query: call('addProgramKey'),
      invalidatesTags: ['program'],
    }),
    endProgramKey: build.mutation<AnswerOf<'endProgramKey'>, Asked<'endProgramKey'>>({
      query: call('endProgramKey'),
      invalidatesTags: ['program'],
    }),
    programSecret: build.query<AnswerOf<'programSecret'>, Asked<'programSecret'>>({
      query: call('programSecret'),
      keepUnusedDataFor: 0,
      providesTags: ['program'],
    }),
    renewProgramSecret: build.mutation<AnswerOf<'renewProgramSecret'>, Asked<'renewProgramSecret'>>({
      query: call('renewProgramSecret'),
      invalidatesTags: ['program'],
    }),
    tryProgram: build.mutation<AnswerOf<'tryProgram'>, Asked<'tryProgram'>>({
      query: call('tryProgram'),
      invalidatesTags: ['program', 'mail'],
    }),
    tellProgramAgain: build.mutation<AnswerOf<'tellProgramAgain'>, Asked<'tellProgramAgain'>>({
      query: call('tellProgramAgain'),
      invalidatesTags: ['program', 'mail'],
    }),
    countries: build.query<AnswerOf<'countries'>, Asked<'countries'>>({ query: call('countries') }),
    holidays: build.query<AnswerOf<'holidays'>, Asked<'holidays'>>({ query: call('holidays') }),
    people: build.query<AnswerOf<'people'>, Asked<'people'>>({ query: call('people'), providesTags: ['people'] }),
    person: build.query<AnswerOf<'person'>, Asked<'person'>>({
      query: call('person'),
      providesTags: ['people'],
      keepUnusedDataFor: 0,
    }),
    addPerson: build.mutation<AnswerOf<'addPerson'>, Asked<'addPerson'>>({
      query: call('addPerson'),
      invalidatesTags: ['people', 'groups', 'ground'],
    }),
    changePerson: build.mutation<AnswerOf<'changePerson'>, Asked<'changePerson'>>({
      query: call('changePerson'),
      invalidatesTags: ['people', 'groups', 'ground', 'me'],
    }),
    endTheirSession: build.mutation<AnswerOf<'endTheirSession'>, Asked<'endTheirSession'>>({
      query: call('endTheirSession'),
      invalidatesTags: ['people', 'me'],
    }),
    signOutPerson: build.mutation<AnswerOf<'signOutPerson'>, Asked<'signOutPerson'>>({
      query: call('signOutPerson'),
      invalidatesTags: ['people'],
    }),
    invite: build.mutation<AnswerOf<'invite'>, Asked<'invite'>>({
      query: call('invite'),
      invalidatesTags: ['people', 'ground'],
    }),
    handOverPlan: build.query<AnswerOf<'handOverPlan'>, Asked<'handOverPlan'>>({
      query: call('handOverPlan'),
      providesTags: ['people', 'groups'],
      keepUnusedDataFor: 0,
    }),
    handOver: build.mutation<AnswerOf<'handOver'>, Asked<'handOver'>>({
      query: call('handOver'),
      invalidatesTags: ['people', 'groups', 'ground', 'ledger', 'sheet'],
    }),
    groups: build.query<AnswerOf<'groups'>, Asked<'groups'>>({ query: call('groups'), providesTags: ['groups'] }),
    group: build.query<AnswerOf<'group'>, Asked<'group'>>({
      query: call('group'),
      providesTags: ['groups'],
      keepUnusedDataFor: 0,
    }),
    addGroup: build.mutation<AnswerOf<'addGroup'>, Asked<'addGroup'>>({
      query: call('addGroup'),
      invalidatesTags: ['groups', 'ground', 'form'],
    }),
    changeGroup: build.mutation<AnswerOf<'changeGroup'>, Asked<'changeGroup'>>({
      query: call('changeGroup'),
      invalidatesTags: ['groups', 'people', 'ground', 'me'],
    }),
    tryRule: build.query<AnswerOf<'tryRule'>, Asked<'tryRule'>>({
      query: call('tryRule'),
      providesTags: ['groups', 'people'],
      keepUnusedDataFor: 0,
    }),
    enterGroup: build.mutation<AnswerOf<'enterGroup'>, Asked<'enterGroup'>>({
      query: call('enterGroup'),
      invalidatesTags: ['groups', 'people', 'ground', 'me', 'form'],
    }),
    leaveGroup: build.mutation<AnswerOf<'leaveGroup'>, Asked<'leaveGroup'>>({
      query: call('leaveGroup'),
      invalidatesTags: ['groups', 'people', 'ground', 'me'],
    }),
  }),
});
