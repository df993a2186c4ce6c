import { unzipSync } from "fflate";

/** Limits for the content of a zip. */
export interface ZipLimits {
  readonly files: number;
  /** Unpacked bytes, of all files together and of each. */
  readonly bytes: number;
  readonly fileBytes: number;
}

/** None of our files compresses to less than a two hundredth; one that claims to is meant to fill the memory. */
const mostRatio = 200;

/** Unpacks a zip within limits, which are checked before any file is unpacked; directories are left out. */
export function unzip(
  bytes: Uint8Array,
  limits: ZipLimits,
): { readonly value: Record<string, Uint8Array> } | { readonly problems: readonly string[] } {
  let files = 0;
  let total = 0;
  let tooMuch: string | null = null;
  const million = (count: number): number => Math.ceil(count / 1e6);
  try {
    const value = unzipSync(bytes, {
      filter: ({ name, size, originalSize }) => {
        files += 1;
        total += originalSize;
        if (originalSize > limits.fileBytes)
          tooMuch ??= `${name}: larger than ${million(limits.fileBytes)} MB unpacked`;
        else if (files > limits.files) tooMuch ??= `the zip holds more than ${limits.files} files`;
        else if (total > limits.bytes || (total > 1e6 && originalSize > mostRatio * Math.max(1, size)))
          tooMuch ??= `${name}: the zip unpacks to more than any Airway file`;
        return tooMuch === null && !name.endsWith("/");
      },
    });
    return tooMuch === null ? { value } : { problems: [tooMuch] };
  } catch (thrown) {
    return { problems: [`This is not a zip file: ${(thrown as Error).message}`] };
  }
}
