/** Why something was not done: a sentence, whether the page shows anything at all, and the field it concerns. */
export class Refused extends Error {
  constructor(
    message: string,
    readonly status: number,
    readonly field = "",
  ) {
    super(message);
  }
}

/** What a request is answered; throws what it was refused for. */
export async function answered(request: Promise<Response>): Promise<Response> {
  let response: Response;
  try {
    response = await request;
  } catch {
    throw new Refused("The page cannot be reached just now. What you typed is still here; try again.", 0);
  }
  if (response.ok) return response;
  const problem = (await response.json().catch(() => ({}))) as { title?: string; field?: string };
  throw new Refused(problem.title ?? "Something went wrong. Please try again.", response.status, problem.field ?? "");
}

/** Sends something. */
export const sent = (path: string, body: unknown) =>
  answered(
    fetch(path, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify(body),
    }),
  );
