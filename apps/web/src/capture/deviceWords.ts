import type { WhySilent } from './drivers/link.ts';
import type { DeviceNow } from './deviceShelf.ts';
import type { DeviceKind, LinkKind } from './knownDevice.ts';

/** Why a device says nothing, and what a person can do. */
export const silentWord: Record<WhySilent, string> = {
  browserCannot:
    'This browser has no way to such devices: Chrome and Edge on a computer or an Android tablet do. Numbers can be typed all the same.',
  pageNotSecure:
    'Browsers open devices to pages over HTTPS only, or on the server’s own machine. docs/operations.md says how a bar gets there.',
  findAgain: 'The browser let go of it when the page was loaded. Find it again: one tap.',
  gone: 'It sleeps, is out of reach or unplugged. Switch it on and bring it near; it is tried again by itself.',
  portBusy: 'Its port is open in another tab or program. Close that first.',
  noReadings: 'Nothing has come from it yet. Is it on, and does it send by itself?',
  notAWeight: 'It sends, and nothing of it is a weight: try another speed of the line.',
  whichUnit: 'Its numbers name no unit.',
};

/** What a device is for. */
export const kindWord: Record<DeviceKind, string> = {
  scale: 'cups and doses',
  tub: 'tubs and hoppers',
  gauge: 'gauges of a machine',
  air: 'the room’s air',
  machine: 'shots of a group',
};

/** The ways to a device, as somebody looks for it. */
export const linkWord: Record<LinkKind, string> = {
  bluetooth: 'Bluetooth',
  serial: 'cable',
  wedge: 'types its number',
  bridge: 'by the bridge',
};

/** Which station a device of a kind can belong to. */
export const belongsTo: Record<DeviceKind, readonly ('machine' | 'group' | 'grinder')[]> = {
  scale: ['group', 'grinder'],
  tub: ['grinder'],
  gauge: ['machine'],
  air: [],
  machine: ['group'],
};

/** What a device that belongs to one station says before somebody chose it. */
export const nowhereWord: Partial<Record<DeviceKind, string>> = { gauge: 'no machine yet', machine: 'no group yet' };

/** What is wrong with a device, in one sentence; null where it speaks. */
export const silenceOf = ({ silent }: DeviceNow): string | null => (silent === null ? null : silentWord[silent]);
