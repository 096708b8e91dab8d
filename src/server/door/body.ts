/** A body longer than may be sent, or shorter than was announced. */
export class BadBody extends Error {
  constructor(
    readonly status: 400 | 413,
    message: string,
  ) {
    super(message);
  }
}

/**
 * The body, counted as it streams in: what was announced is only a hint, and a chunked body announces nothing. Stops
 * reading at the limit, so that memory never holds more than it.
 */
export function counted(request: Request, mostBytes: number): ReadableStream<Uint8Array> | null {
  const stated = Number(request.headers.get('content-length') ?? '0');
  const tooLong = () => new BadBody(413, `This is more than ${megabytes(mostBytes)} MB, the most that is taken here.`);
  if (stated > mostBytes) throw tooLong();
  let bytes = 0;
  return (
    request.body?.pipeThrough(
      new TransformStream<Uint8Array, Uint8Array>({
        transform(chunk, out) {
          bytes += chunk.byteLength;
          if (bytes > mostBytes) out.error(tooLong());
          else out.enqueue(chunk);
        },
        flush(out) {
          if (stated > 0 && bytes !== stated) out.error(new BadBody(400, 'The file came in cut short. Send it again.'));
        },
      }),
    ) ?? null
  );
}
const megabytes = (bytes: number): string => String(Math.round(bytes / 100_000) / 10);

export async function bodyBytes(request: Request, mostBytes: number): Promise<Buffer> {
  const stream = counted(request, mostBytes);
  if (!stream) return Buffer.alloc(0);
  const parts: Uint8Array[] = [];
  const reader = stream.getReader();
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return Buffer.concat(parts);
    parts.push(value);
  }
}

/** A form with files in it. */
export async function bodyForm(request: Request, mostBytes: number): Promise<FormData> {
  const stream = counted(request, mostBytes);
  const type = request.headers.get('content-type') ?? '';
  try {
    return await new Response(stream, { headers: { 'content-type': type } }).formData();
  } catch (error) {
    const cause = error instanceof BadBody ? error : error instanceof Error ? error.cause : null;
    throw cause instanceof BadBody ? cause : new BadBody(400, 'This is no form that can be read. Send it again.');
  }
}
