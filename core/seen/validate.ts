import type { Feature, Problem } from '../contract/index.ts';
import { checkFields, checkLine } from '../works/index.ts';
import { seenKind } from './kinds.ts';

/** Problems of a feature: the shape its kind needs and numbers within their range. Kinds that are only drawn have none. */
export function checkFeature(feature: Feature): Problem[] {
  const kind = seenKind(feature.kind);
  if (!kind) return [];
  const named = { ...feature, name: feature.name ?? kind.title };
  const at: unknown = feature.at;
  const isPlace = Array.isArray(at) && at.length === 2 && at.every((v) => Number.isFinite(v));
  const place: Problem[] =
    kind.shape === 'point' && !isPlace
      ? [{ code: 'feature.at', what: `"${named.name}" has no place`, field: 'at', do: 'Place it on the plan again.' }]
      : [];
  return [...place, ...(kind.shape === 'line' ? checkLine(named, feature.line) : []), ...checkFields(named, kind.fields)];
}
