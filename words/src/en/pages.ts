export const pages = {
  questions: 'Questions',
  rules: 'Rules',
  routing: 'Routing',
  approval: 'Approval and deadlines',
  access: 'Access',
  doors: 'Doors and releases',
  inOut: 'Import and export',
  editions: 'Editions',
  notices: 'Notices',
  mailings: 'Send to people',
  languages: 'Languages',
} as const;
