/** Whether a text contains every word of a query, in any case and order; an empty query matches every text. */
export function everyWord(query: string): (text: string) => boolean {
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  return (text) => {
    const lower = text.toLowerCase();
    return words.every((word) => lower.includes(word));
  };
}
