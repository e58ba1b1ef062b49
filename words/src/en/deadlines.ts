export const deadlines = {
  paused: 'Paused: we need an answer from you. See “Messages”.',
  weAreLate: 'We are late. We planned to finish it by {{due, moment}}.',
  weAreLateNoDate: 'We are late.',
  planned: 'We plan to finish it by {{due, moment}}.',
  finishedLate: 'finished {{length, length}} late',
  finishedInTime: 'finished in time',
  pausedLeft: 'paused, {{length, length}} left',
  overdueNow: 'overdue since closing time',
  overdue: '{{length, length}} overdue',
  left: '{{length, length}} left',
} as const;
