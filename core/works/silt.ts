// A store in which silt lies: what water finds room for over it.
import type { Stage } from '../contract/index.ts';

interface Content {
  readonly volumeM3: number;
  readonly wettedM2: number;
}

const [STAGES, HALVINGS] = [32, 40];

/** Levels and water over the silt of a store, from the silt's top up. `contentAt` tells what it held when new. */
export function siltedStage(
  contentAt: (levelM: number) => Content,
  on: { readonly bedM: number; readonly fullM: number; readonly topM: number; readonly siltM3: number },
): Stage {
  const { bedM, fullM, topM, siltM3 } = on;
  let [floor, above] = [bedM, fullM];
  for (let k = 0; siltM3 > 0 && k < HALVINGS; k++) {
    const middle = (floor + above) / 2;
    if (contentAt(middle).volumeM3 < siltM3) floor = middle;
    else above = middle;
  }
  const levelM = Float64Array.from({ length: STAGES + 1 }, (_, k) => floor + ((topM - floor) * k) / STAGES);
  const content = Array.from(levelM, contentAt);
  // Routing needs volumes that rise.
  let least = 0;
  const volumeM3 = Float64Array.from(content, (c) => (least = Math.max(least + 1e-9, c.volumeM3 - siltM3)) - 1e-9);
  return { levelM, volumeM3, wettedM2: Float64Array.from(content, (c) => Math.max(1e-3, c.wettedM2)) };
}
