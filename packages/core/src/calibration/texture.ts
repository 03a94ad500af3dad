import type { Sighting, Texture } from '../facts/index.ts';
import { textures } from '../facts/index.ts';
import { engineDefaults } from './engineDefaults.ts';

/** How a grinder's grounds felt, and where the collar stood. */
export interface Felt {
  setting: number;
  texture: Texture;
}

export const isTexture = (sign: Sighting): sign is Texture => (textures as readonly Sighting[]).includes(sign);

/** ln T against the window's middle of grounds that feel so; people disagree, so it is a wide hint. */
export const lnOfTexture = (texture: Texture): number => engineDefaults.textureLn[texture];
