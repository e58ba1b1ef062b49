import type { AnswerOf } from '@tolvek/contract';
import { api } from '../wire/api.ts';
import type { Asked } from '../wire/call.ts';
import { call } from '../wire/callAny.ts';

/** Laying what the desk works by. */
export const workshopApi = api.injectEndpoints({
  endpoints: (build) => ({
    draftOffers: build.mutation<AnswerOf<'draftOffers'>, Asked<'draftOffers'>>({ query: call('draftOffers') }),
    vocabularies: build.query<AnswerOf<'vocabularies'>, Asked<'vocabularies'>>({
      query: call('vocabularies'),
      providesTags: ['forms'],
    }),
    vocabulary: build.query<AnswerOf<'vocabulary'>, Asked<'vocabulary'>>({
      query: call('vocabulary'),
      keepUnusedDataFor: 0,
      providesTags: ['vocabulary'],
    }),
    createVocabulary: build.mutation<AnswerOf<'createVocabulary'>, Asked<'createVocabulary'>>({
      query: call('createVocabulary'),
      invalidatesTags: ['forms', 'form'],
    }),
    saveVocabulary: build.mutation<AnswerOf<'saveVocabulary'>, Asked<'saveVocabulary'>>({
      query: call('saveVocabulary'),
      invalidatesTags: ['forms', 'form', 'ledger', 'sheet', 'desk'],
    }),
    forms: build.query<AnswerOf<'forms'>, Asked<'forms'>>({ query: call('forms'), providesTags: ['forms'] }),
    form: build.query<AnswerOf<'form'>, Asked<'form'>>({
      query: call('form'),
      providesTags: ['form'],
      keepUnusedDataFor: 0,
    }),
    ground: build.query<AnswerOf<'ground'>, Asked<'ground'>>({
      query: call('ground'),
      providesTags: ['groups', 'calendar', 'register'],
    }),
    findPeople: build.query<AnswerOf<'findPeople'>, Asked<'findPeople'>>({ query: call('findPeople') }),
    proofSeat: build.query<AnswerOf<'proofSeat'>, Asked<'proofSeat'>>({
      query: call('proofSeat'),
      providesTags: ['groups', 'form'],
    }),
    proofTheirs: build.query<AnswerOf<'proofTheirs'>, Asked<'proofTheirs'>>({
      query: call('proofTheirs'),
      providesTags: ['groups', 'form', 'sheet', 'ledger'],
    }),
    createForm: build.mutation<AnswerOf<'createForm'>, Asked<'createForm'>>({
      query: call('createForm'),
      invalidatesTags: ['forms'],
    }),
    saveDraft: build.mutation<AnswerOf<'saveDraft'>, Asked<'saveDraft'>>({
      query: call('saveDraft'),
      invalidatesTags: ['forms', 'editions'],
    }),
    releaseForm: build.mutation<AnswerOf<'releaseForm'>, Asked<'releaseForm'>>({
      query: call('releaseForm'),
      invalidatesTags: ['editions', 'forms', 'form', 'register', 'desk', 'ledger', 'sheet'],
    }),
    replanning: build.query<AnswerOf<'replanning'>, Asked<'replanning'>>({
      query: call('replanning'),
      keepUnusedDataFor: 0,
    }),
    recomputation: build.query<AnswerOf<'recomputation'>, Asked<'recomputation'>>({
      query: call('recomputation'),
      keepUnusedDataFor: 0,
    }),
    deletedIn: build.query<AnswerOf<'deletedIn'>, Asked<'deletedIn'>>({
      query: call('deletedIn'),
      keepUnusedDataFor: 0,
      providesTags: ['deleted'],
    }),
    restoreDeleted: build.mutation<AnswerOf<'putBackRequest'>, Asked<'putBackRequest'>>({
      query: call('putBackRequest'),
      invalidatesTags: ['ledger', 'sheet', 'deleted'],
    }),
    deleteForGood: build.mutation<AnswerOf<'deleteForGood'>, Asked<'deleteForGood'>>({
      query: call('deleteForGood'),
      invalidatesTags: ['deleted'],
    }),
    doubles: build.query<AnswerOf<'doubles'>, Asked<'doubles'>>({
      query: call('doubles'),
      providesTags: ['register', 'ledger', 'sheet'],
    }),
    register: build.query<AnswerOf<'register'>, Asked<'register'>>({
      query: call('register'),
      providesTags: ['register'],
      keepUnusedDataFor: 0,
    }),
    changeRegister: build.mutation<AnswerOf<'changeRegister'>, Asked<'changeRegister'>>({
      query: call('changeRegister'),
      invalidatesTags: ['register', 'forms', 'form', 'ledger', 'sheet', 'mine'],
    }),
    // What is kept of a draft changes nothing that is shown elsewhere, and is not read again for it.
    keepRegister: build.mutation<AnswerOf<'keepRegister'>, Asked<'keepRegister'>>({
      query: call('keepRegister'),
      onQueryStarted: ({ key }, { dispatch, queryFulfilled }) =>
        void queryFulfilled.then(
          ({ data }) =>
            dispatch(workshopApi.util.updateQueryData('register', { key }, (known) => ({ ...known, ...data }))),
          () => undefined,
        ),
    }),
    putRegister: build.mutation<AnswerOf<'putRegister'>, Asked<'putRegister'>>({
      query: call('putRegister'),
      invalidatesTags: ['register', 'forms', 'form', 'ledger', 'sheet', 'mine'],
    }),
    accessPlan: build.query<AnswerOf<'accessPlan'>, Asked<'accessPlan'>>({
      query: call('accessPlan'),
      providesTags: ['register', 'groups'],
    }),
    keepAccessPlan: build.mutation<AnswerOf<'keepAccessPlan'>, Asked<'keepAccessPlan'>>({
      query: call('keepAccessPlan'),
      onQueryStarted: ({ key, body }, { dispatch, queryFulfilled }) =>
        void queryFulfilled.then(
          ({ data }) =>
            dispatch(
              workshopApi.util.updateQueryData('accessPlan', { key }, (known) => ({ ...known, ...data, draft: body })),
            ),
          () => undefined,
        ),
      invalidatesTags: ['planEffect'],
    }),
    accessPlanGrid: build.query<AnswerOf<'accessPlanGrid'>, Asked<'accessPlanGrid'>>({
      query: call('accessPlanGrid'),
      keepUnusedDataFor: 0,
      providesTags: ['planEffect', 'register', 'groups'],
    }),
    seeAs: build.mutation<AnswerOf<'seeAs'>, Asked<'seeAs'>>({ query: call('seeAs') }),
    doorDesign: build.query<AnswerOf<'doorDesign'>, Asked<'doorDesign'>>({
      query: call('doorDesign'),
      keepUnusedDataFor: 0,
      providesTags: ['form'],
    }),
    changeDoor: build.mutation<AnswerOf<'changeDoor'>, Asked<'changeDoor'>>({
      query: call('changeDoor'),
      invalidatesTags: ['form', 'desk'],
    }),
    mailings: build.query<AnswerOf<'mailings'>, Asked<'mailings'>>({
      query: call('mailings'),
      keepUnusedDataFor: 0,
      providesTags: ['mailings', 'form'],
    }),
    addMailing: build.mutation<AnswerOf<'addMailing'>, Asked<'addMailing'>>({
      query: call('addMailing'),
      invalidatesTags: (_added, error) => (error ? [] : ['mailings']),
    }),
    tryMailing: build.mutation<AnswerOf<'tryMailing'>, Asked<'tryMailing'>>({ query: call('tryMailing') }),
    changeMailing: build.mutation<AnswerOf<'changeMailing'>, Asked<'changeMailing'>>({
      query: call('changeMailing'),
      invalidatesTags: (_changed, error) => (error ? [] : ['mailings']),
    }),
    removeMailing: build.mutation<AnswerOf<'removeMailing'>, Asked<'removeMailing'>>({
      query: call('removeMailing'),
      invalidatesTags: (_removed, error) => (error ? [] : ['mailings', 'desk']),
    }),
    sendMailing: build.mutation<AnswerOf<'sendMailing'>, Asked<'sendMailing'>>({
      query: call('sendMailing'),
      invalidatesTags: (_sent, error) => (error ? [] : ['mailings', 'desk']),
    }),
    owedForms: build.query<AnswerOf<'owedForms'>, Asked<'owedForms'>>({
      query: call('owedForms'),
      keepUnusedDataFor: 0,
      providesTags: ['mailings'],
    }),
    remindOwed: build.mutation<AnswerOf<'remindOwed'>, Asked<'remindOwed'>>({ query: call('remindOwed') }),
    endOwed: build.mutation<AnswerOf<'endOwed'>, Asked<'endOwed'>>({
      query: call('endOwed'),
      invalidatesTags: (_ended, error) => (error ? [] : ['mailings', 'desk']),
    }),
    unjoined: build.query<AnswerOf<'unjoined'>, Asked<'unjoined'>>({
      query: call('unjoined'),
      keepUnusedDataFor: 0,
      providesTags: ['mailings', 'sheet'],
    }),
    tryDoor: build.mutation<AnswerOf<'tryDoor'>, Asked<'tryDoor'>>({ query: call('tryDoor') }),
    doorRemoval: build.query<AnswerOf<'doorRemoval'>, Asked<'doorRemoval'>>({
      query: call('doorRemoval'),
      keepUnusedDataFor: 0,
    }),
    moveDoor: build.mutation<AnswerOf<'moveDoor'>, Asked<'moveDoor'>>({
      query: call('moveDoor'),
      invalidatesTags: (_moved, error) => (error ? [] : ['form', 'desk']),
    }),
    removeDoor: build.mutation<AnswerOf<'removeDoor'>, Asked<'removeDoor'>>({
      query: call('removeDoor'),
      invalidatesTags: (_removed, error) => (error ? [] : ['form', 'desk']),
    }),
    addDoor: build.mutation<AnswerOf<'addDoor'>, Asked<'addDoor'>>({
      query: call('addDoor'),
      invalidatesTags: (_added, error) => (error ? [] : ['form', 'desk']),
    }),
    editionsGiven: build.query<AnswerOf<'editionsGiven'>, Asked<'editionsGiven'>>({
      query: call('editionsGiven'),
      keepUnusedDataFor: 0,
      providesTags: ['editions', 'groups', 'people'],
    }),
    fieldReaders: build.query<AnswerOf<'fieldReaders'>, Asked<'fieldReaders'>>({
      query: call('fieldReaders'),
      keepUnusedDataFor: 0,
      providesTags: ['planEffect', 'register', 'groups', 'people'],
    }),
    fieldReach: build.query<AnswerOf<'fieldReach'>, Asked<'fieldReach'>>({
      query: call('fieldReach'),
      keepUnusedDataFor: 0,
      providesTags: ['planEffect', 'register', 'groups'],
    }),
    personReads: build.query<AnswerOf<'personReads'>, Asked<'personReads'>>({
      query: call('personReads'),
      keepUnusedDataFor: 0,
      providesTags: ['planEffect', 'register', 'groups', 'people'],
    }),
    accessPlanEffect: build.query<AnswerOf<'accessPlanEffect'>, Asked<'accessPlanEffect'>>({
      query: call('accessPlanEffect'),
      keepUnusedDataFor: 0,
      providesTags: ['planEffect', 'register', 'groups', 'people'],
    }),
    putAccessPlan: build.mutation<AnswerOf<'putAccessPlan'>, Asked<'putAccessPlan'>>({
      query: call('putAccessPlan'),
      invalidatesTags: ['register', 'form', 'ledger', 'sheet', 'mine'],
    }),
    goBackToState: build.mutation<AnswerOf<'goBackToState'>, Asked<'goBackToState'>>({
      query: call('goBackToState'),
      invalidatesTags: ['register', 'forms', 'form', 'ledger', 'sheet', 'mine'],
    }),
    askInto: build.mutation<AnswerOf<'askInto'>, Asked<'askInto'>>({
      query: call('askInto'),
      invalidatesTags: ['forms', 'register'],
    }),
    duplicateForm: build.mutation<AnswerOf<'duplicateForm'>, Asked<'duplicateForm'>>({
      query: call('duplicateForm'),
      invalidatesTags: ['forms', 'register'],
    }),
    setFormState: build.mutation<AnswerOf<'setFormState'>, Asked<'setFormState'>>({
      query: call('setFormState'),
      invalidatesTags: ['forms', 'register', 'desk'],
    }),
    takeInRows: build.mutation<AnswerOf<'takeInRows'>, Asked<'takeInRows'>>({
      query: call('takeInRows'),
      invalidatesTags: ['ledger', 'forms'],
    }),
    sendTrial: build.mutation<AnswerOf<'sendTrial'>, Asked<'sendTrial'>>({
      query: call('sendTrial'),
      invalidatesTags: ['form'],
    }),
    allowWay: build.mutation<AnswerOf<'allowWay'>, Asked<'allowWay'>>({
      query: call('allowWay'),
      invalidatesTags: ['form', 'forms'],
    }),
    endWay: build.mutation<AnswerOf<'endWay'>, Asked<'endWay'>>({
      query: call('endWay'),
      invalidatesTags: ['form', 'forms'],
    }),
    placeFields: build.mutation<AnswerOf<'placeFields'>, Asked<'placeFields'>>({
      query: call('placeFields'),
      invalidatesTags: ['form', 'forms'],
    }),
    protectAlike: build.mutation<AnswerOf<'protectAlike'>, Asked<'protectAlike'>>({
      query: call('protectAlike'),
      invalidatesTags: ['form', 'forms'],
    }),
    clearTrials: build.mutation<AnswerOf<'clearTrials'>, Asked<'clearTrials'>>({
      query: call('clearTrials'),
      invalidatesTags: ['form'],
    }),
    draftHistory: build.query<AnswerOf<'draftHistory'>, Asked<'draftHistory'>>({
      query: call('draftHistory'),
      keepUnusedDataFor: 0,
    }),
    takeRunBack: build.mutation<AnswerOf<'takeRunBack'>, Asked<'takeRunBack'>>({
      query: call('takeRunBack'),
      invalidatesTags: ['ledger', 'sheet'],
    }),
    overExisting: build.mutation<AnswerOf<'overExisting'>, Asked<'overExisting'>>({
      query: call('overExisting'),
      invalidatesTags: ['ledger', 'sheet'],
    }),
    compareRelease: build.query<AnswerOf<'compareRelease'>, Asked<'compareRelease'>>({
      query: call('compareRelease'),
      keepUnusedDataFor: 0,
    }),
    job: build.query<AnswerOf<'job'>, Asked<'job'>>({ query: call('job'), keepUnusedDataFor: 0 }),
    stopJob: build.mutation<AnswerOf<'stopJob'>, Asked<'stopJob'>>({ query: call('stopJob') }),
    tryCondition: build.query<AnswerOf<'tryCondition'>, Asked<'tryCondition'>>({
      query: call('tryCondition'),
      keepUnusedDataFor: 30,
    }),
    showNotice: build.query<AnswerOf<'showNotice'>, Asked<'showNotice'>>({
      query: call('showNotice'),
      keepUnusedDataFor: 0,
      providesTags: ['people', 'groups'],
    }),
    setDoor: build.mutation<AnswerOf<'setDoor'>, Asked<'setDoor'>>({
      query: call('setDoor'),
      invalidatesTags: ['form', 'desk'],
    }),
  }),
});
