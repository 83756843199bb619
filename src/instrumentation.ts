/** Opens the company's file when the server starts, so that migrations run before the first request. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { readers } = await import('./server/readers');
  await readers();
}

/** A page that could not be drawn: it says the number that stands here. */
export async function onRequestError(
  error: unknown,
  { path, method }: { path: string; method: string },
): Promise<void> {
  const { log } = await import('./server/setting');
  log.error({ fault: (error as { digest?: string }).digest, path, method, err: error }, 'A page failed.');
}
