/**
 * An id made of a name as a person writes it: `blower fuse` is `blower-fuse`, `31` is `N31`. A name that is an id
 * already stays the same.
 * @param most the longest id allowed
 */
export function idFromName(name: string, most = 32): string {
  const plain = name
    .normalize("NFKD")
    .replace(/[^A-Za-z0-9_-]+/g, "-")
    .replace(/^-+|-+$/g, "");
  const lettered = /^[A-Za-z]/.test(plain) ? plain : `N${plain}`;
  return lettered.slice(0, most);
}
