import type { people as english } from '../en/people.ts';
import type { Same } from '../same.ts';

export const people: Same<typeof english> = {
  requester: 'die anfragende Person',
  andRequester: '{{who}} und die anfragende Person',
  exceptGroups: '{{who}} außer {{groups, and}}',
  everyone: 'alle',
  nobody: 'niemand',
  itsHandler: 'wer sie bearbeitet',
  itsTeam: 'ihr Team',
  itsDecider: 'wer darüber entscheidet',
  itsWorkers: 'wer daran arbeitet',
  anyOf: '{{groups, or}}',
  allOf: '{{groups, and}}',
  someone: 'eine Person, die nicht zum Empfang gehört',
  someoneOfDesk: 'Mitarbeitende des Empfangs',
  'who.requester': '{{who}}, die anfragende Person',
  'who.in': '{{who}} in {{groups, and}}',
  'who.out': '{{who}} nicht in {{groups, or}}',
  'who.where': '{{who}}, wo {{rules, names}} etwas anderes sagt',
  'who.builds': '{{who}}, die Formulare baut',
  contacts: 'Personen von außerhalb',
  profile: 'Profil',
  whoMeets: 'Personen, in deren Profil steht: {{condition}}',
  'who.meets': '{{who}}, {{what}}',
  whoEntered: 'die Person, die es eingegeben hat',
  onWhoseBehalf: 'die Person, für die gefragt wird',
};
