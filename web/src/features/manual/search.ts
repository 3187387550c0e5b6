/** Finding something in the manual: every word is in a passage, and passages that have it in their heading come first. */
export interface Passage {
  page: string;
  title: string;
  /** Of the section that it stands in; the page's own title before the first one. */
  heading: string;
  text: string;
}

/** A page in passages: each paragraph, list item and row of a table by itself. */
export function passagesOf(
  page: { id: string; title: string; html: string },
  parse: (html: string) => Document,
): Passage[] {
  let heading = page.title;
  const passages: Passage[] = [];
  for (const part of parse(page.html).querySelectorAll('h1, h2, h3, p, li, tr, blockquote')) {
    const text = (part.textContent ?? '').replace(/\s+/g, ' ').trim();
    if (/^H[1-3]$/.test(part.tagName)) heading = text;
    else if (text && !part.querySelector('p, li')) passages.push({ page: page.id, title: page.title, heading, text });
  }
  return passages;
}

export function search(passages: Passage[], sought: string, most = 20): Passage[] {
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
  if (!words.length) return [];
  const has = (text: string) => words.every((word) => text.toLowerCase().includes(word));
  const found = passages.filter((one) => has(`${one.heading} ${one.text}`));
  const first = (one: Passage) => (has(one.heading) || has(one.title) ? 0 : has(one.text) ? 1 : 2);
  return found.sort((a, b) => first(a) - first(b)).slice(0, most);
}
