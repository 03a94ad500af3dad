import { later } from '../kernel/later.tsx';
import type { LiveChartProps } from './LiveChart.tsx';

/** The chart of a shot; its code, with the charts' library, is fetched when one is first drawn. */
export const LiveChart = later<LiveChartProps>(async () => (await import('./LiveChart.tsx')).LiveChart);
