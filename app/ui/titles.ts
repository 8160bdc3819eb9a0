/**
 * What each reading page is called in the browser's tab, by the name of its route; pages with a name of their own say
 * it themselves.
 */
export const PAGE_TITLES: Readonly<Record<string, string>> = {
  'index': 'Today',
  'plan': 'Plans',
  'plan-id': 'Plan',
  'bench': 'Bench',
  'shelf': 'Shelf',
  'logbook': 'Logbook',
  'logbook-charts': 'Logbook over time',
  'logbook-compare': 'Pours side by side',
  'logbook-trials': 'What makes the difference',
  'logbook-table': 'Import a table',
  'pour-id': 'Pour',
  'piece-pour-cast': 'Piece',
  'l-code': 'Label',
  'moulds': 'Moulds',
  'moulds-id': 'Mould',
  'moulds-model': 'Model',
  'moulds-print': 'Print by photo',
  'powders': 'Powders',
  'lab': 'Lab',
  'lab-sayings': 'Sayings',
  'lab-model': 'How the model works',
  'not-taken': 'Not taken',
  'settings': 'Workshop',
  'account': 'Your account',
  'enter-token': 'Come in',
  'hand-over': 'Handed over',
  'sign-in': 'Sign in',
}
