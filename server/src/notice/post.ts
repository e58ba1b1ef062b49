/** How long what is outside may take to answer, ms. */
const PATIENCE = 10_000;

/** Sends something by POST: led nowhere else, and answered in time. What it answers with is not read. */
export async function post(
  address: string,
  body: string,
  headers: Readonly<Record<string, string>>,
): Promise<Response> {
  const response = await fetch(address, {
    ...{ method: 'POST', body, headers, redirect: 'manual', signal: AbortSignal.timeout(PATIENCE) },
  });
  await response.body?.cancel();
  return response;
}
