/** What words beside a request offer to whoever is given them. */
export const actions = {
  begun: 'It is sent for approval.',
  finished: 'This is finished. Nobody can sign up or back out any more.',
  notOffered: 'You can’t be in this list. Ask whoever runs it.',
  noPlaceLeft: 'No place is free at the moment.',
  noPlaces: 'There is no list to sign up for here any more.',
  left_one: '{{count}} place free',
  left_other: '{{count}} places free',
  isIn: 'You are in the list',
  nowIn: 'You are in the list now.',
  nowOut: 'You are no longer in the list.',
  question: 'Your question',
  send: 'Send the question',
  cancel: 'Cancel',
  asked: 'Your question was sent.',
  askedAndFollow: 'You follow {{number}} from now on, so you hear the answer.',
} as const;
