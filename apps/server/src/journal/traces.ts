import { packTrace, unpackTrace, type PackedTrace } from '@tempera/core/capture';

/** A body as it is kept: a shot's trace is packed, a fifth of its size; whatever has none stays as it is. */
export function packedBody(body: object): object {
  const trace = 'trace' in body ? (body.trace as { hz: number; massG?: (number | null)[] } | null) : null;
  return trace?.massG ? { ...body, trace: packTrace({ hz: trace.hz, massG: trace.massG }) } : body;
}

/** A kept body as the wire has it; bodies from before traces were packed are read as they are. */
export function unpackedBody(body: object): object {
  const trace = 'trace' in body ? (body.trace as Partial<PackedTrace> | null) : null;
  return trace?.packed === undefined ? body : { ...body, trace: unpackTrace(trace as PackedTrace) };
}
