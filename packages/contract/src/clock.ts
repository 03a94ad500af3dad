/** Every answer carries the server's clock, ms since the epoch, so that a device knows how far its own is off. */
export const CLOCK_HEADER = 'Tempera-Clock';
