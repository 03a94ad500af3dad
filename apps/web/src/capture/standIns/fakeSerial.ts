/** A serial scale behind a stand-in for the browser's serial ports: what it writes comes in the pieces that it is given. */
export interface FakeSerial {
  serial: Serial;
  /** Text on the wire, cut wherever the caller cuts it. */
  say(piece: string): void;
  /** Somebody pulls the plug; it can be put back. */
  unplug(): void;
  plugIn(): void;
  /** At which rate it was opened last; null: never. */
  openedAt(): number | null;
}

/** @param remembers whether the browser knows it again after a reload @param onOpen somebody opens the port */
export function fakeSerial(remembers = true, onOpen = (): void => undefined): FakeSerial {
  let plugged = true;
  let out: ReadableStreamDefaultController<Uint8Array> | null = null;
  let rate: number | null = null;
  const encoder = new TextEncoder();
  const port = {
    readable: null as ReadableStream<Uint8Array> | null,
    open: ({ baudRate }: { baudRate: number }) => {
      if (!plugged) return Promise.reject(new DOMException('unplugged', 'NetworkError'));
      if (port.readable !== null) return Promise.reject(new DOMException('open already', 'InvalidStateError'));
      rate = baudRate;
      onOpen();
      port.readable = new ReadableStream<Uint8Array>({
        start: (controller) => {
          out = controller;
        },
      });
      return Promise.resolve();
    },
    close: () => {
      port.readable = null;
      out = null;
      return Promise.resolve();
    },
  };
  return {
    serial: {
      requestPort: () => Promise.resolve(port),
      getPorts: () => Promise.resolve(remembers ? [port] : []),
    } as unknown as Serial,
    say: (piece) => out?.enqueue(encoder.encode(piece)),
    unplug: () => {
      plugged = false;
      out?.error(new DOMException('lost', 'NetworkError'));
    },
    plugIn: () => {
      plugged = true;
    },
    openedAt: () => rate,
  };
}
