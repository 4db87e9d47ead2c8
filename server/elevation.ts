// Stand-in for a public elevation service: made-up land, the same for the same question.
import { IsInt, IsNumber, IsOptional, Max, Min } from 'class-validator';
import type { Request, Response } from 'express';
import { writeGround } from '#core/formats';
import type { Grid } from '#core/terrain';
import { uneven } from '../demo/surface.ts';
import { isRefused } from './question.ts';

class Question {
  /** How far it reaches each way [m]. */
  @IsNumber({ allowNaN: false, allowInfinity: false }) @Min(50) @Max(1000) across = 400;
  /** Which of many lands. */
  @IsOptional() @IsInt() @Min(1) @Max(1_000_000) land = 1;
}

const CELL_M = 2;

/** Level of a made-up valley: it wanders and falls, its flanks round over into ridges, and nothing on it is even [m]. */
function levelOf(land: number, [x, y]: readonly [number, number]): number {
  const turn = 2 * Math.PI * ((land * 0.618) % 1) + 0.4;
  const [along, beside] = [x * Math.cos(turn) + y * Math.sin(turn), y * Math.cos(turn) - x * Math.sin(turn)];
  const off = (beside + 34 * Math.sin(along / 118 + land) + 11 * Math.sin(along / 41)) / 95;
  const flank = 12 * (1 - Math.exp(-off * off)) + 1.5 * Math.abs(off);
  const rough =
    7 * uneven(x, y, { wave: 150, seed: land }) +
    2.4 * uneven(x, y, { wave: 58, seed: land + 7 }) +
    0.6 * uneven(x, y, { wave: 21, seed: land + 13 });
  return 140 + 0.055 * along + flank + rough;
}

function gridOf({ across, land }: Question): Grid {
  const cells = Math.round(across / CELL_M);
  const z = new Float32Array(cells * cells);
  const middle = across / 2;
  for (let row = 0; row < cells; row++)
    for (let col = 0; col < cells; col++)
      z[row * cells + col] = levelOf(land, [(col + 0.5) * CELL_M - middle, middle - (row + 0.5) * CELL_M]);
  return { ncols: cells, nrows: cells, west: 0, south: 0, cellM: CELL_M, baseM: 0, z };
}

export function elevation(request: Request, response: Response): void {
  const asked = Object.entries(request.query).map(([name, value]) => [name, Number(value)] as const);
  const question = Object.assign(new Question(), Object.fromEntries(asked) as Partial<Question>);
  if (isRefused(question, response, 'Give across from 50 to 1000 m, and land as a whole number from 1.')) return;
  const bytes = writeGround(gridOf(question), 'asc', { name: 'made-up land', epsg: null, when: new Date(0) });
  response.json({ simulated: true, source: `made-up land ${question.land} (simulated)`, asc: new TextDecoder().decode(bytes) });
}
