import type { MassUnit } from '@tempera/core/capture';
import { keepTrying, type LinkEvents, type ScaleLink } from './link.ts';
import { textReader } from './lineScale.ts';

/** How a scale talks over its serial line. */
export interface SerialWay {
  baudRate: number;
  /** What its numbers mean where its lines name no unit; null: nobody said yet. */
  unit: MassUnit | null;
}

/** A scale over Web Serial that sends its lines by itself; opened again when it is plugged back in. */
export function serialScale(port: SerialPort, { baudRate, unit }: SerialWay, events: LinkEvents): ScaleLink {
  let reader: ReadableStreamDefaultReader<Uint8Array> | null = null;
  let closed = false;

  const listen = async (stream: ReadableStream<Uint8Array>): Promise<void> => {
    const take = textReader(unit, events);
    const decoder = new TextDecoder();
    reader = stream.getReader();
    try {
      for (;;) {
        const { value, done } = await reader.read();
        if (done) return;
        take(decoder.decode(value, { stream: true }), Date.now());
      }
    } finally {
      reader.releaseLock();
      reader = null;
    }
  };

  const open = async (): Promise<void> => {
    try {
      await port.open({ baudRate });
    } catch (error) {
      events.onSilent(error instanceof DOMException && error.name === 'InvalidStateError' ? 'portBusy' : 'gone');
      throw error;
    }
    events.onSilent('noReadings');
    const lose = async (): Promise<void> => {
      await port.close().catch(() => undefined);
      if (closed) return;
      events.onSilent('gone');
      trying.lost();
    };
    // A broken byte breaks the stream, not the port: both end here, and it is opened anew.
    const { readable } = port;
    void (readable ? listen(readable) : Promise.resolve()).then(lose, lose);
  };
  const trying = keepTrying(open);
  return {
    tare: null,
    close: async () => {
      closed = true;
      trying.stop();
      await reader?.cancel().catch(() => undefined);
      await port.close().catch(() => undefined);
    },
  };
}
