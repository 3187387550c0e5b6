/** The first of every group of things that share a key, in their order. */
export function firstOfEach<Thing>(things: readonly Thing[], key: (thing: Thing) => unknown): Thing[] {
  const seen = new Set<unknown>();
  return things.filter((thing) => {
    const found = key(thing);
    return !seen.has(found) && seen.add(found);
  });
}
