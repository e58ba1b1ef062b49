/** What a directory that keeps people in step is told. */
export const scim = {
  noSuchPath:
    'There is no attribute “{{path}}” here. Use a path of the schema, such as name.familyName or emails[type eq "work"].value.',
  wrongFilter:
    'The filter “{{filter}}” can’t be read. Use attributes of the schema and the operators of RFC 7644, section 3.4.2.2.',
  notAResource: 'A resource is expected here: an object with attributes.',
  otherSchema: 'The list “schemas” does not name {{schema}}. Add it.',
  wrongKind: 'The value of “{{attribute}}” is of another kind than its schema says. Send a value of that kind.',
  required: '“{{attribute}}” is required. Send a value for it.',
  notAPatch:
    'This is no patch. Send the schema of a PatchOp, and Operations that each have an op: add, remove or replace.',
  noValue: 'The operation has no value that fits its path. Send one.',
  onlyRead: '“{{attribute}}” can’t be changed. Leave it out.',
  noTarget: 'Nothing matches the path “{{path}}”. Use another path, or add the value first.',
  stale: 'Someone else changed this in the meantime. Read it again and repeat the change.',
  notThere: 'There is nothing with the id {{id}} here. Look it up by its name.',
  noToken:
    'This needs the token of a directory, and there is none, or it has ended. Ask an administrator of the desk for one.',
  noMe: 'A directory is no user. Look for users by their names.',
  noSuchPlace: 'There is nothing at {{path}}. Use /Users, /Groups or /Bulk.',
  noFilterHere: 'This can’t be filtered. Ask for all of it.',
  notASearch: 'This is no search. Send the schema of a SearchRequest.',
  longFilter: 'The filter is longer than {{most, number}} characters. Ask in parts.',
  notABulk: 'This is no Bulk. Send the schema of a BulkRequest, and Operations that each have a method and a path.',
  noBulkId: 'A POST in a Bulk needs a bulkId. Add one.',
  manyOperations: 'A Bulk may have {{most, number}} operations. Send the others in a next one.',
  lostBulkId: 'Nothing was made for the bulkId {{id}}. Make it first, and without a circle.',
  taken: '{{name}} belongs to another already. Look it up and change that one.',
  localGroup: 'The desk has a group “{{name}}” of its own. Give one of the two another name.',
  isContact: '{{email}} belongs to a contact of the desk, who is not staff. Merge or remove the contact first.',
  noAddress: 'There is no email address in emails or userName. Send one.',
  noMember: 'There is no user or group {{member}} of the directory here. Send it first.',
} as const;
