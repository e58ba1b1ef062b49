export const moves = {
  onlyThese: 'Only these people can do this: {{who, or}}.',
  dependsOnHidden: 'This depends on a field that not everyone here may read. Ask a coordinator to move the request.',
  fillInFirst: 'First fill in {{fields, names}}.',
  onceTrue: 'This is possible when this condition is true: {{condition}}.',
  conditionUnreadable: 'The condition of this move is not correct. Ask a coordinator to correct it.',
  twice: 'From “{{stage}}”, two moves lead to the same stage. Remove one.',
  nowhere: 'From “{{stage}}”, a move leads nowhere. Choose a stage for it, or remove the move.',
  notByHand:
    'From “{{stage}}” to “{{to}}”: nobody moves a request there by hand. Decisions and requesters do. Remove the move.',
  noField: 'From “{{stage}}” to “{{to}}”: a field no longer exists. Choose another one.',
  condition: 'From “{{stage}}” to “{{to}}”: {{message}}',
} as const;
