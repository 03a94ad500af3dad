/** What is not right with a job, for the page that says it in words. */
export type NotRight =
  | 'noWater'
  | 'filterOld'
  | 'scaleOff'
  | 'dosesScatter'
  | 'groupOff'
  | 'grinderOff'
  | 'unsure'
  | 'detergentLeft'
  | 'gasketWorn';
