import { data } from "react-router";

/** The form a request brings; answers 400 where it brings none that can be read. */
export async function sentForm(request: Request): Promise<FormData> {
  try {
    return await request.formData();
  } catch {
    throw data("That form could not be read. Load the page again.", { status: 400 });
  }
}
