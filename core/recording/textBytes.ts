/** Bytes as text, one character per byte: figures and delimiters are plain ASCII in all usual encodings. */
export function textOf(bytes: Uint8Array, from: number, to: number): string {
  let text = "";
  for (let i = from; i < to; i += 4096)
    text += String.fromCharCode(...bytes.subarray(i, Math.min(to, i + 4096)));
  return text;
}

/** Bytes of a byte-order mark at the start. */
export const byteOrderMark = (bytes: Uint8Array): number =>
  bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf ? 3 : 0;
