/** How the frame asks for the palette, which is loaded late: an event that it hears once it is there. */
const ASKED = 'tempera:find';

export const askPalette = (): void => void window.dispatchEvent(new Event(ASKED));

/** Calls back whenever the palette is asked for. Returns how to stop. */
export function onPaletteAsked(open: () => void): () => void {
  window.addEventListener(ASKED, open);
  return () => window.removeEventListener(ASKED, open);
}
