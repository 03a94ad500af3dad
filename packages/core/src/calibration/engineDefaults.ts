/**
 * Every tunable number of the engine in one place, each with its reason.
 * ln T is the natural log of the normalised shot time in seconds, so an sd of 0.05 is about 5 % of the time.
 */
export const engineDefaults = {
  /** Yield exponent of the part after the first drop: flow is nearly steady, so time is nearly linear in yield. */
  yieldExponent: 0.95,
  /** First drop as a share of the shot when nobody saw it: 6 s of a 27 s shot. */
  firstDropShare: 0.22,
  /** d ln T / d ln dose: bed depth raises resistance and swelling closes the headspace. */
  doseExponent: 2.2,
  /** Doubt of the dose exponent, one sd. */
  doseExponentSd: 0.5,
  /** Shot-to-shot noise of ln T by one careful person at one setting, and how many shots' worth of belief that is. */
  shotSd: 0.055,
  shotSdShots: 24,
  /** Of so many shots the house's noise counts against a person's own: three shots teach nobody's hands. */
  handsShots: 16,
  /**
   * What a way of measuring adds to what a scale would have said, sd of the ln of the grams. Beans
   * come out short by what the grinder keeps; a timer repeats to a quarter of a gram; level and line within half a gram or so; eyes within a gram. Counters and marked glasses are read to a few parts
   * in a hundred, and crema comes and goes; where a stream turns pale is anybody's guess within an eighth.
   */
  doseWayLnSd: { scale: 0, beans: 0.012, timed: 0.014, levelled: 0.025, line: 0.03, scoop: 0.035, eye: 0.05 },
  yieldWayLnSd: { scale: 0, weighedAfter: 0, volume: 0.04, glass: 0.06, eye: 0.12 },
  /** Of so many shots these defaults count against what a house's own shots say of a way. */
  wayShots: 12,
  /** A dose that nobody weighed is called off beyond so many of its way's own sds. */
  doseOffSds: 2,
  /** Extra sd of ln T per unit |ln(recipe yield / yield)|: the yield correction is itself a guess far from the recipe. */
  yieldCorrectionSd: 0.3,
  /** Student-t degrees of freedom of a surprise: low on the fast side, where channels and loose pucks make real tails. */
  fastDegreesOfFreedom: 4,
  slowDegreesOfFreedom: 10,
  /** Sd of a sound group's effect: a degree of temperature and a few percent of pressure. */
  groupSd: 0.03,
  /** Sd of sound grinders and groups while looking for a fault: narrower, since the fault is a question of its own there. */
  grinderSoundSd: 0.025,
  groupSoundSd: 0.015,
  /** A group's effect wanders: screens clog, gaskets wear. */
  groupSdPerRootDay: 0.005,
  /** Somebody who asks whether a grinder or a group is off has a sound bar this often. */
  soundBarChance: 0.5,
  /** A fault worth naming moves a shot by about 12 % either way: less passes as noise, more is seen without a model. */
  faultSize: 0.12,
  faultSizeSd: 0.03,
  /** Shots whose channel nobody saw, and how much faster they run, in ln T. */
  unseenChannelChance: 0.03,
  channelShift: -0.2,
  channelShiftSd: 0.12,
  /** Chance at which a fault, or its absence, is named. */
  namingSureness: 0.88,
  /** Doubt of ln T of a coffee's other recipe at the collar of its first: another basket, another bed. */
  otherRecipeSd: 0.12,
  /** What a mark is worth wanders by this share of itself in a day, and with another bag. */
  responseSdPerRootDay: 0.02,
  responseNewBagSd: 0.05,
  /** d ln T a day of age and a point of relative humidity: ageing coffee flows faster, damp grounds slower. */
  agePerDay: -0.01,
  agePerDaySd: 0.01,
  humidityPerPoint: 0.003,
  humidityPerPointSd: 0.003,

  /** Doubt of ln T where a grinder has never held its window: a factor of 1.4 either way. */
  levelSdNever: 0.35,
  /**
   * ln T against the window's middle of grounds that feel so: powder chokes, flour is slow, fine salt a little fast, salt gushes, sand is for
   * filters. Espresso lies somewhere between flour and fine salt, and people disagree, so the hint is wide.
   */
  textureLn: { powder: 0.7, flour: 0.2, fineSalt: -0.2, salt: -0.8, sand: -1.5 },
  textureLnSd: 0.4,
  /** Grounds that clump have come from the new setting: as good as so many grams of purge. */
  clumpingPurgesG: 60,
  /** A miss of so many seconds is small, for houses that answer it otherwise than with the collar. */
  smallMissS: 3,
  /** Doubt of ln T at the moment a grinder was locked. */
  levelSdAtLock: 0.03,
  /** Random walk of ln T, sd per root hour: humid air, warm burrs, ageing coffee. */
  driftSdPerRootHour: 0.035,
  /**
   * How much a grinder may wander, sd of ln T per root hour, and how common that is: a cold dry bar hardly ever moves, a kitchen
   * with ovens at the bar's back is adjusted several times a day. The day's own shots say which it is.
   */
  walks: [
    { sdPerRootHour: 0.012, chance: 0.25 },
    { sdPerRootHour: 0.025, chance: 0.4 },
    { sdPerRootHour: 0.05, chance: 0.25 },
    { sdPerRootHour: 0.09, chance: 0.1 },
  ],
  /**
   * How steadily it may go one way, sd of ln T per hour, and how common that is: burrs that warm, damp that rises with the day. Such a trend
   * lasts some hours.
   */
  trends: [
    { sdPerHour: 0, chance: 0.7 },
    { sdPerHour: 0.03, chance: 0.3 },
  ],
  trendLastsHours: 3,
  /** What another bag may do, sd of ln T: of one roast hardly anything, of another a good part of the window. */
  bags: [
    { sd: 0.04, chance: 0.65 },
    { sd: 0.11, chance: 0.35 },
  ],
  /**
   * How a grinder goes through its day is learned from its days, as slopes of ln T per hour: what may be believed of one beforehand, what a
   * day leaves unsaid of it, and what share of what was learned of its wandering counts on the next day. After so many hours without a
   * shot another day begins.
   */
  habitSd: 0.03,
  habitSdPerRootDay: 0.002,
  habitKept: 0.97,
  habitPauseHours: 5,
  /** For how many hours a grinder wanders alike. */
  wandersAlikeHours: 20,
  /** Added sd of ln T at a new bag: another roast day is another bed. */
  newBagSd: 0.08,
  /** Added sd of ln T at a refill, a cleaning, a service. */
  refillSd: 0.03,
  cleanedSd: 0.03,
  servicedSd: 0.25,
  /**
   * New burrs lose their first edge over some kilograms: about so many bags that have gone through, and so many days at the
   * longest where nobody writes bags down. The level walks so many times as fast meanwhile.
   */
  newBurrsBags: 3,
  newBurrsDays: 6,
  newBurrsDriftTimes: 2,
  /** The same where another person doses and tamps; where a door stands open, ovens heat the room, or burrs warm in a rush. */
  otherHandsSd: 0.02,
  airJumpSd: 0.03,
  /** So many degrees, or points of humidity, are such a jump. */
  airJumpC: 5,
  airJumpPct: 10,
  rushSd: 0.02,
  /**
   * A look tells fast from slow and no more: "as it should" is the middle, fast and slow lie so far beyond an edge of the
   * window, each give or take so much of ln T. One pair of eyes errs one way: every further look without a timed shot says less.
   */
  lookBeyondLn: 0.1,
  lookSd: 0.1,

  /** Response where the house has no belief: one mark is commonly 2-5 s of a 28 s shot, so about 0.11 in ln T. */
  responseUnknown: 0.11,
  responseUnknownRelativeSd: 0.5,
  /** Doubt of the house's own seconds-per-mark. */
  responseRelativeSd: 0.3,
  /** A finer mark never makes a shot faster: the response stays above this share of its prior mean. */
  responseFloorShare: 0.2,

  /** Retention assumed when nobody measured it: between a low-retention grinder (1-2 g) and a long chute (10 g). */
  retentionUnknownG: 5,
  /** Doubt of the retention, as sd of its ln: assumed, and stated by the house. */
  retentionUnknownLnSd: 0.6,
  retentionKnownLnSd: 0.25,
  /** A purge is done when less than this share of the next dose is old grounds. */
  oldShareAfterPurge: 0.05,
  /** A shot with more old grounds than this says too little about the new mark to decide anything else. */
  oldShareNotPurged: 0.25,
  /** Purges are weighed on a bar scale: advised in half grams. */
  purgeStepG: 0.5,

  /** The collar moves only when the chance to be inside grows by at least this much: noise is not chased. */
  moveMargin: 0.03,
  /** After a shot inside the window the collar moves only for a mark that is likelier by this much. */
  leaveGoodMargin: 0.25,
  /** A collar that was moved goes back to where it held unless another mark is likelier by this much. */
  backMargin: 0.1,
  /** A move never exceeds this many steps at once; beyond it the dial is not the question. */
  maxMoveSteps: 60,
  /** Behind a dual-walled basket time hardly answers to the grind: what looks like a large miss is no reason to turn far. */
  dualWallMostSteps: 2,
  /** Minutes that a shot and a move take, for weighing one against the other. */
  shotMin: 1.2,
  moveMin: 0.6,
  /** Cost, in shots, of a station that two more shots did not lock: a repeat, or a move and half a repeat. */
  costBeyondLookahead: 1.5,
  /** A mark with less chance than this is priced as if it had it: nothing is hopeless for ever. */
  leastHope: 0.4,
  /** Trims of the dose between two marks, grams, smallest first (handbook: 0.2-0.4 g). */
  trimsG: [0.2, 0.3, 0.4],
  /** A trim must gain this much in chance. */
  trimMargin: 0.02,
  /** Below this chance nobody hopes for a mark any more; then the nearest to the window is the best there is. */
  hopeless: 0.05,
  /** A collar whose step is more than this share of the window cannot be centred by itself. */
  coarseStepShare: 0.2,
  /** Chance that the mean is inside at which the house trusts the setting. */
  sureness: 0.915,
  /** Chance of being outside at which a check falls due. */
  risk: 0.2,
  /** When more repeats can no longer change the answer, the best mark of a coarse dial is taken. */
  settledSd: 0.024,
  nextCheckMinMin: 5,
  /**
   * The longest a house goes without a timed shot, unless it says otherwise: long enough that looks go where the doubt is, not by the
   * clock.
   */
  longestCheckMin: 75,

  /** Grinding rate lost per mark finer: finer grounds leave the burrs more slowly. */
  rateLossPerMark: 0.02,
  rateLossPerMarkSd: 0.01,
  /** Doubt of the grinding rate before anything was weighed: a factor of two or so; one weighing settles it. */
  usualRateLnSd: 0.7,
  /**
   * How far the grinding rate wanders with warmth, damp and what lies in the hopper: by so much in the end, and so slowly, a hundredth
   * or so in an hour and a tenth of a gram or two; and by as much again with another bag, or another coffee.
   */
  rateWanderLnSd: 0.05,
  rateWandersHours: 17,
  rateBagLnSd: 0.04,
  rateCoffeeLnSd: 0.1,
  /** Scatter of weighed doses by time: half a percent of grinding, half a tenth on the scale. */
  doseLnSd: 0.01,
} as const;
