export const notes = {
  releaseOf: 'Release {{number}} of “{{title}}”',
  forTrials: 'For trial requests',
  asInState: 'As it was in state {{number}}',
} as const;
