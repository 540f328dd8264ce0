/** The pages that hold some places, in order, each once. */
export function pagesOf(places: [number, number][], size: number): number[] {
  const pages = new Set<number>();
  for (const [from, to] of places) {
    for (let page = Math.floor(Math.max(0, from) / size); page * size <= to; page++) {
      pages.add(page);
    }
  }
  return [...pages].sort((a, b) => a - b);
}
