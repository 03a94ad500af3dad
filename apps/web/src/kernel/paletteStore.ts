/** How the frame asks for the palette, which is loaded late: it hears what was asked before it was there. */
let heard: (() => void) | null = null;
let waits = false;

export function askPalette(): void {
  if (heard) heard();
  else waits = true;
}

/** Calls back whenever the palette is asked for, and at once where it was asked for already. Returns how to stop. */
export function onPaletteAsked(open: () => void): () => void {
  heard = open;
  if (waits) open();
  waits = false;
  return () => {
    heard = null;
  };
}
