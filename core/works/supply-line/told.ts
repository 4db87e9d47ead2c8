// What rules on water lines share in telling.
import type { Finding } from '../../contract/index.ts';
import { type Amount, amount, say } from '../../units/index.ts';
import { millimetres } from '../rules.ts';
import type { SupplyLine } from './model.ts';
import type { SupplyLineFacts } from './standing.ts';

export const byFall = ({ work }: SupplyLineFacts): boolean => work.drive === 'fall';
export const byPump = ({ work }: SupplyLineFacts): boolean => work.drive === 'pump';
export const litres = (m3s: number): Amount => amount(m3s, 'tapFlow');

/** A wider pipe, with the button that lays it; other words where no usual one is wide enough. */
export function widened({ id }: SupplyLine, wideM: number | null, otherwise: string): Pick<Finding, 'do' | 'cure'> {
  if (wideM === null) return { do: otherwise };
  const says = say`Lay a pipe of ${millimetres(wideM)} inside`;
  return { do: say`${says}.`, cure: { work: id, set: { 'pipe.diameterM': wideM }, says } };
}
