import type { Quantity } from '@tempera/core/house';

const quantityNames: Record<Quantity, string> = {
  doseG: 'dose',
  yieldG: 'yield',
  timeS: 'shot time',
  firstDropS: 'first drop',
  purgeG: 'purge',
  grindTimeS: 'grind time',
};

/** Every sentence that a refused input or a failed request shows, in the bar's words, and what to do about it. */
export const sentences = {
  badId: 'This entry has no proper id. Reload the page and enter it again.',
  badInstant: 'This entry has no proper time. Check the clock of the tablet and enter it again.',
  badDate: 'That is no date. Type the day that stands on the bag, or leave it empty.',
  badSetting: 'That is no dial number. Type the number that the collar shows.',
  notANumber: (name: Quantity, like: string) => `Type the ${quantityNames[name]} as a number, like ${like}.`,
  outOfLimits: (name: Quantity, min: number, max: number, unit: string) =>
    `A ${quantityNames[name]} lies between ${min} and ${max} ${unit}. Check the number and its unit.`,
  unusual: (min: number, max: number, unit: string) =>
    `Outside the usual ${min}-${max} ${unit}. Kept as typed; look twice.`,
  firstDropAfterEnd: 'The first drop cannot fall after the shot has ended. Correct one of the two times.',
  traceTooLong: 'The recorded shot is too long to keep. Enter its yield and time by hand.',
  correctsNothing: 'This correction changes nothing. Change a number, the flaw, or withdraw the entry.',

  policyOutOfLimits: {
    sureness: 'A sureness lies between 60 and 99 %.',
    risk: 'A risk lies between 2 and 50 %.',
    longestCheckMin: 'The longest time without a check lies between 10 and 240 minutes.',
  },
  reasonMissing: 'Say in a few words why, for those who find it changed.',
  reasonTooLong: 'Keep the reason under 300 letters.',

  invalid: 'Something in this entry is not right. Look at the marked fields.',
  notJson: 'The request could not be read. Reload the page and try again.',
  tooLarge: 'That is too much in one entry. Send it in smaller parts.',
  notFound: 'There is nothing here by that name. Go back to the bar.',
  signInFirst: 'Say who you are first.',
  wrongPin: (triesLeft: number) =>
    `That PIN does not match. ${triesLeft === 1 ? 'One try' : `${triesLeft} tries`} left before a wait.`,
  pinWait: (seconds: number) => `Too many tries. Wait ${seconds} s, then try again.`,
  tooManyRequests: 'Too many requests from this device. Wait a minute, then go on.',
  wrongSite: 'This entry belongs to another café. Sign in there to send it.',
  unknownStation: 'That station is not part of this bar. Go back to the bar and choose again.',
  unknownRecipe: 'That recipe is not in this house book. Reload the page and choose again.',
  unknownFact: 'The entry to be corrected has not arrived here. Reload the journal and try again.',
  idTaken: 'Another entry already has this id. Reload the page and enter yours again.',
  fromTheFuture: 'This entry is dated in the future. Check the clock of the tablet.',
  headOnly: 'Only a head barista changes the house book. Ask one to sign in.',
  changedMeanwhile: 'Somebody else changed this meanwhile. Both are shown; look at theirs, then save yours again.',
  notReady: 'The server is starting or has lost its database. It will be back by itself; nothing entered is lost.',
  internal: 'Something went wrong on our side. Nothing entered is lost; try again in a moment.',
} as const;
