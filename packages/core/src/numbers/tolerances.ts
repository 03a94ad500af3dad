/** Scales and timers read to a tenth: a value exactly at a limit is inside it, whatever binary fractions make of it. */
export const FLOAT_DUST = 1e-9;

/** Eight of ten draws of a normal distribution lie within so many sd of its mean: half the width of every 80 % band. */
export const Z_80 = 1.2816;
