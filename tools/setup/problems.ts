/** A set-up that cannot go on, told in one sentence that says what to do. */
export class SetUpError extends Error {
  override readonly name = 'SetUpError';
}

export function say(line: string): void {
  process.stderr.write(`${line}\n`);
}
