/**
 * Derives an id from a name as a person writes it: `blower fuse` gives `blower-fuse`, `31` gives `N31`. A name that is
 * already an id is returned unchanged.
 * @param longest the most characters an id may have
 */
export function idFromName(name: string, longest = 32): string {
  const plain = name
    .normalize("NFKD")
    // Accents, which the normal form separates from their letters.
    .replace(/\p{M}/gu, "")
    .replace(/[^A-Za-z0-9_-]+/g, "-")
    .replace(/^-+|-+$/g, "");
  const lettered = /^[A-Za-z]/.test(plain) ? plain : `N${plain}`;
  return lettered.slice(0, longest);
}

/** The id of something with a written name, and the name itself as its title if the id differs from it. */
export function namedAs(name: string): { readonly id: string; readonly title?: string } {
  const id = idFromName(name);
  return id === name ? { id } : { id, title: name };
}
