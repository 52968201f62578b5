/** Server-sent events: a line of JSON for each, and a sign of life so that dead lines are noticed. */

const ALIVE_EVERY_MS = 15_000;

/**
 * Answers a stream. `begin` gets what sends a value and answers how to stop; it is stopped when the client goes.
 */
export function eventStream(
  request: Request,
  begin: (send: (value: unknown) => void) => () => void,
): Response {
  const encoder = new TextEncoder();
  let stop = () => {};
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      let isOpen = true;
      const write = (text: string) => {
        if (!isOpen) return;
        try {
          controller.enqueue(encoder.encode(text));
        } catch {
          stop();
        }
      };
      const end = begin((value) => write(`data: ${JSON.stringify(value)}\n\n`));
      const alive = setInterval(() => write(': here\n\n'), ALIVE_EVERY_MS);
      alive.unref();
      stop = () => {
        if (!isOpen) return;
        isOpen = false;
        clearInterval(alive);
        end();
        try {
          controller.close();
        } catch {
          // The client has closed it.
        }
      };
      request.signal.addEventListener('abort', stop, { once: true });
    },
    cancel: () => stop(),
  });
  return new Response(body, {
    headers: {
      'content-type': 'text/event-stream',
      // Compression would hold lines back until a block is full.
      'cache-control': 'no-store, no-transform',
      'x-accel-buffering': 'no',
    },
  });
}
