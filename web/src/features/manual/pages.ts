/** The manual: the pages of docs/manual, made to HTML when the program is built. */
export interface Page {
  title: string;
  html: string;
}
const files = import.meta.glob<Page>('../../../../docs/manual/*.md', {
  query: '?page',
  import: 'default',
  eager: true,
});
const ORDER = [
  'first-part',
  'jobs',
  'plan',
  'bench',
  'schedule',
  'quote',
  'rack',
  'own',
  'log',
  'sizes',
  'light',
  'eye',
  'figures',
  'settings',
];

export const PAGES: (Page & { id: string })[] = Object.entries(files)
  .map(([file, page]) => ({ id: file.replace(/^.*\/(.+)\.md$/, '$1'), ...page }))
  .sort((a, b) => ORDER.indexOf(a.id) - ORDER.indexOf(b.id));
