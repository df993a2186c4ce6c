import type { Photo } from "@db/repositories/notes.server";
import sharp from "sharp";
import { mostPhotoBytes, photoTooLarge } from "./photoLimit";

/** Largest number of pixels: a small file can hold a picture that fills the memory. */
const mostPixels = 60_000_000;
/** Largest side in pixels: no camera makes a longer picture, and one takes minutes to decode. */
const longestSide = 20_000;
const longestSeconds = 10;
/** Longest side in pixels of the stored picture. */
const keptSide = 1600;
const quality = 78;
const accepted = new Set(["jpeg", "png", "webp"]);

/**
 * Decodes a picture and encodes it again as an upright JPEG of at most 1600 pixels a side, without the file's own data
 * (place, device).
 * @returns the photo, or why it cannot be one
 */
export async function photoFrom(bytes: Uint8Array): Promise<{ photo: Photo } | { problem: string }> {
  if (bytes.length > mostPhotoBytes) return { problem: photoTooLarge };
  try {
    const picture = sharp(bytes, { limitInputPixels: mostPixels, failOn: "error", pages: 1 });
    const { format, width, height } = await picture.metadata();
    if (!accepted.has(format)) return { problem: "A photo must be a JPEG, PNG or WebP file." };
    if (Math.max(width, height) > longestSide)
      return { problem: `A photo may be at most ${longestSide} pixels long.` };
    const { data, info } = await picture
      .rotate()
      .resize({ width: keptSide, height: keptSide, fit: "inside", withoutEnlargement: true })
      .flatten({ background: "white" })
      .jpeg({ quality })
      .timeout({ seconds: longestSeconds })
      .toBuffer({ resolveWithObject: true });
    return { photo: { width: info.width, height: info.height, jpeg: data } };
  } catch {
    return { problem: "That file cannot be read as a picture: send a JPEG, PNG or WebP photo." };
  }
}
