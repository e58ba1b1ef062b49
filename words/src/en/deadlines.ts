export const deadlines = {
  paused: 'Paused: we need an answer from you. See “Messages”.',
  weAreLate: 'We are late. We planned to finish it by {{due, moment}}.',
  weAreLateNoDate: 'We are late.',
  planned: 'We plan to finish it by {{due, moment}}.',
  finishedLate: 'finished {{length, brief}} late',
  finishedInTime: 'finished in time',
  pausedLeft: 'paused, {{length, brief}} left',
  overdueNow: 'overdue since closing time',
  overdue: '{{length, brief}} overdue',
  left: '{{length, brief}} left',
} as const;
