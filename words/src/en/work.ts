export const work = {
  correctDraft: 'Correct it in the draft, then try again.',
  noStage: 'This stage does not exist.',
  chooseFromList: 'Choose one from the list.',
  noTeam: 'This team does not exist.',
  chooseTeam: 'Choose a team from the list.',
  notInTeam: 'This person is not in the team of the request.',
  chooseFromTeam: 'Choose a person from the team.',
  unknownRequester: '“{{typed}}”: we know nobody with this email address, or several people have this name.',
  correctRequester: 'Correct the cell, or leave it empty to be the requester yourself.',
} as const;
