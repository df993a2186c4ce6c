/** Largest size of a file, in bytes; larger ones are refused before they are decoded. */
export const mostPhotoBytes = 12 * 1024 * 1024;

export const photoTooLarge = `A photo may be at most ${mostPhotoBytes / 1024 / 1024} MB.`;
