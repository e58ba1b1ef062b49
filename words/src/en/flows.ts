export const flows = {
  tooManyKinds:
    'The access plan separates too many kinds of people. We cannot check what the form reveals. Use fewer groups in its rules.',
  tellsValue:
    '{{place}} This reveals the value of “{{field}}” to {{who}}, who may not read it. Remove it there, or permit it on purpose.',
  tellsSomething:
    '{{place}} This reveals something about “{{field}}” to {{who}}, who may not read it. Remove it there, or permit it on purpose.',
  readBy: '“{{field}}” is read by {{who}}.',
  toldChanging: 'Everyone who changes “{{field}}” sees it, including {{who}}.',
  stepTells: 'Who is asked to decide shows it, also to {{who}}.',
  routingTells: 'Team, stage and due date show which row was used, also to {{who}}.',
  toldChangers: 'Everyone who changes something sees it, including {{who}}.',
  toldRequesters: 'Every requester sees it, including {{who}}.',
  shownTo: 'It is shown to {{who}}.',
  unplaced_one:
    '{{fields, names}} has no place in the access plan yet. Until then, only the requester and whoever builds the form see it.',
  unplaced_other:
    '{{fields, names}} have no place in the access plan yet. Until then, only the requester and whoever builds the form see them.',
  deadlineTells: 'When something is due shows it, also to {{who}}.',
} as const;
