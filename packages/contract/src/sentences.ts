import type { Quantity } from '@tempera/core/house';

const quantityNames: Record<Quantity, string> = {
  doseG: 'dose',
  glassMl: 'glass',
  yieldG: 'yield',
  timeS: 'shot time',
  firstDropS: 'first drop',
  purgeG: 'purge',
  grindTimeS: 'grind time',
  doseToleranceG: 'dose tolerance',
  yieldToleranceG: 'yield tolerance',
  pressureBar: 'brew pressure',
  tempC: 'brew temperature',
  milkTempC: 'milk temperature',
  airTempC: 'room temperature',
  humidityPct: 'relative humidity',
};

/** What a quantity is called where its limits are told: "A dose". */
export const quantityWord = (of: Quantity): string => `A ${quantityNames[of]}`;

const roleNames: Record<string, string> = {
  head: 'a head barista',
  barista: 'a barista',
  trainee: 'a trainee',
  office: 'the office',
};

/** Who may, as a sentence names them: "a head barista or a barista". */
export const rolesWord = (roles: readonly string[]): string =>
  roles.map((role) => roleNames[role] ?? role).join(' or ');

/** Limits as they are told: numbers as kept, or as somebody reads them. */
export interface ToldLimits {
  /** What is limited, as a sentence begins: "A dose". */
  what: string;
  min: number | string;
  max: number | string;
  unit: string;
}

/** Every sentence that a refused input or a failed request shows, in the bar's words, and what to do about it. */
export const sentences = {
  badId: 'This entry has no proper id. Reload the page and enter it again.',
  badInstant: 'This entry has no proper time. Check the clock of the tablet and enter it again.',
  badDate: 'That is no date. Type the day that stands on the bag, or leave it empty.',
  badPin: (least: number, most: number) => `A PIN has ${least} to ${most} digits.`,
  badCode: (digits: number) => `A code has ${digits} digits. Type them all.`,
  setUpCodeMissing: 'Type the code that the server printed when it was started.',
  badSetting: 'That is no dial number. Type the number that the collar shows.',
  notANumber: (name: Quantity, like: string) => `Type the ${quantityNames[name]} as a number, like ${like}.`,
  outOfLimits: ({ what, min, max, unit }: ToldLimits) =>
    `${what} lies between ${min} and ${max}${unit === '' ? '' : ` ${unit}`}. Check the number and its unit.`,
  unusual: ({ min, max, unit }: Omit<ToldLimits, 'what'>) =>
    `Outside the usual ${min}-${max} ${unit}. Kept as typed; look twice.`,
  firstDropAfterEnd: 'The first drop cannot fall after the shot has ended. Correct one of the two times.',
  traceTooLong: 'The recorded shot is too long to keep. Enter its yield and time by hand.',
  bandBackwards: 'The expected time lies outside its own band. Reload the bench and lock again.',
  cafeStays: 'A café is not taken out of use here. Retire its pieces, or leave it as it is.',
  ownPin: 'Your own PIN you change on your own page, by the one you have.',
  unwritable: 'There is a letter in it that cannot be kept. Type it again.',
  notItsShots: 'A lock rests on shots of its own grinder and recipe. Reload the bench and lock again.',
  correctsNothing: 'This correction changes nothing. Change a number, the flaw, or withdraw the entry.',

  policyOutOfLimits: {
    sureness: 'A sureness lies between 60 and 99 %.',
    risk: 'A risk lies between 2 and 50 %.',
    longestCheckMin: 'The longest time without a check lies between 10 and 240 minutes.',
  },
  nameMissing: 'Give it a name, as people at the bar call it.',
  nameTooLong: 'Keep the name under 60 letters.',
  badDay: 'That is no date. Choose the day.',
  minOverMax: 'The smaller number comes first. Swap the two, or correct one.',
  windowBackwards: 'The window ends before it begins. Swap the two times, or correct one.',
  dropAfterWindow: 'The first drop would come after the shot may end. Correct one of the two windows.',
  noSoak: 'Time from the end of the soak needs a soak or a pause. Enter one, or let time start with the pump.',
  offTheDial: 'That number is not on this dial. Check it against the smallest and the largest.',
  emptyStep: 'Write the step, or take it off the card.',
  stepTooLong: 'Keep a step under 160 letters.',
  tooManySteps: 'A card holds 20 steps. Put two together.',
  openOrder: 'Open coffee is at its best before it is open too long. Correct one of the hours.',
  windowOrder: 'Rest ends before prime, and prime before fading ends. Correct one of the days.',
  endsBeforeItBegins: 'It cannot end before it begins. Correct one of the days.',
  thawedBefore: 'It cannot thaw before it was frozen. Correct one of the days.',
  frozenBeforeRoast: 'It cannot be frozen before it was roasted. Correct one of the days.',
  openedBeforeRoast: 'It cannot be opened before it was roasted. Correct one of the days.',
  badTimeZone: 'That time zone is not known. Choose one of the list.',
  badCurrency: 'A currency has three letters, like EUR or USD.',
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
  notYours: 'This entry was written by somebody else. It waits until they sign in.',
  waitsForPin: 'This waits on its tablet until whoever wrote it gives their PIN there.',
  deviceUnknown: 'This device is not one of the house. Ask a head barista for a code, or sign in by name and password.',
  wrongPassword: 'Name or password is not right. Type both again.',
  wrongPasskey: 'That passkey does not open this café. Choose another one, or come in by name and password.',
  shortPassword: (letters: number): string =>
    `Choose a password of at least ${letters} letters; a short sentence is best.`,
  lapsesBefore: 'A sign-off lapses after the day it was given. Correct one of the days.',
  headSignsOff: 'Only a head barista signs somebody off. Ask one to sign in.',
  otherSite: 'This came from another site or under another name. Open Tempera at its own address and do it there.',
  pinAgain: 'This asks for your PIN once more: the last one is older than 15 minutes.',
  headOnly: 'Only a head barista changes the house book. Ask one to sign in.',
  headBegins: 'A run is in hand. Only a head barista begins it anew or takes it back; ask one to sign in here.',
  notSignedOff: (skill: string) =>
    `Whoever is not signed off for ${skill} needs the yes of somebody who is: this house asks for their PIN.`,
  needsRole: (who: string) => `Only ${who} does this. Ask one to say yes, or to sign in here.`,
  headSigns: 'Only a head barista signs the bar off. Ask one to sign in here.',
  headOrOffice: 'Only a head barista or the office changes this. Ask one to sign in.',
  nameTaken: 'Another one already has this name. Choose a different one, so that nobody mixes them up.',
  placeTaken: 'Another group head already has this place in the machine. Choose the next one.',
  unknownPart: 'Something that this names is not in the house any more. Reload the page and choose again.',
  wrongCode: 'That code does not match, or it has run out. Ask a head barista for a new one.',
  noPinYet: 'There is no PIN yet. Type the code that your head barista gave you.',
  commonPin: 'Too many people would try that PIN first. Choose digits that are no row, no year and no pattern.',
  lastHead: 'A house needs one head barista. Make somebody else head first.',
  retiredPerson: 'This person is out of the house. Ask a head barista to take them in again.',
  alreadySetUp: 'This café is set up already. Choose your name to sign in.',
  changedMeanwhile: 'Somebody else changed this meanwhile. Both are shown; look at theirs, then save yours again.',
  notReady: 'The server is starting or has lost its database. It will be back by itself; nothing entered is lost.',
  internal: 'Something went wrong on our side. Nothing entered is lost; try again in a moment.',
} as const;
