/** What keeps the application from doing all of its work, told on the Floor. */
export const troubles = {
  locked: 'Another program uses the database. Until it has finished, saving takes longer or must be tried again.',
  full: 'The disk is full. Nothing new can be saved until there is room. Tell your administrator.',
  disk: 'The disk cannot be written. Nothing new can be saved. Tell your administrator.',
  job: 'A task of Tolvek failed: {{job}}. Tolvek tries again by itself.',
  'job.outbox': 'sending emails',
  'job.timers': 'reminders and deadlines',
  'job.decisions': 'decisions that nobody can make',
  'job.dayTurn': 'what changes with each new day',
  'job.find': 'making requests ready to be found by their words',
  'job.keeping': 'deleting what is too old',
  'job.clock': 'saving the clock',
  'job.longWork': 'long tasks',
} as const;
