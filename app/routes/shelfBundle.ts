import { shelfBundle } from "../shelf/bundle.server";

/** The whole shelf as one file, to keep or to import elsewhere. */
export async function loader() {
  return new Response(new Uint8Array(await shelfBundle()), {
    headers: {
      "Content-Type": "application/zip",
      "Content-Disposition": 'attachment; filename="airway-shelf.zip"',
      "X-Content-Type-Options": "nosniff",
    },
  });
}
