/** One measured figure: what, how much, in which unit, and what is aimed at. */
export interface Figure {
  name: string;
  value: number;
  unit: string;
  aim?: string;
}
