import { data } from "react-router";

/** The form of a request; answers 400 if there is none that can be read. */
export async function sentForm(request: Request): Promise<FormData> {
  try {
    return await request.formData();
  } catch {
    throw data("That form could not be read. Load the page again.", { status: 400 });
  }
}
