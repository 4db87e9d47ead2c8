// The scenario a derive is asked for, as JSON: a case, and how ground and water are found.
import { CONDITIONS, type Condition } from '#core/contract';
import { parseJson } from '#core/formats';
import { fail } from '#core/project';
import { told } from '#core/units';

export interface ScenarioAsked {
  readonly case?: string;
  readonly conditions?: readonly Condition[];
}

const isRecord = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Conditions one can ask for: as found is what there is without any. */
const ASKED: readonly string[] = CONDITIONS.filter((c) => c !== 'found');

function conditionsIn(value: unknown): Condition[] {
  const field = 'conditions';
  if (!isRecord(value))
    return fail('scenario.conditions', `conditions are ${told(value)}`, { where: { field }, do: 'Give {"full":true}, say.' });
  return Object.entries(value).flatMap(([name, isOn]): Condition[] => {
    if (!ASKED.includes(name) || typeof isOn !== 'boolean')
      return fail('scenario.conditions', `the condition ${told(name)} is ${told(isOn)}`, {
        where: { field: `${field}.${name}` },
        do: `Set ${ASKED.join(', ')} to true or false.`,
      });
    return isOn ? [name as Condition] : [];
  });
}

/** Reads --scenario. @throws UserError for what it cannot mean. */
export function scenarioIn(text: string | undefined): ScenarioAsked {
  if (text === undefined) return {};
  const json = parseJson('--scenario', new TextEncoder().encode(text));
  if (!isRecord(json))
    return fail('scenario.shape', 'the scenario is no object', { do: 'Give {"case":"...","conditions":{"full":true}}.' });
  const other = Object.keys(json).find((key) => key !== 'case' && key !== 'conditions');
  if (other !== undefined)
    return fail('scenario.member', `a scenario has no ${told(other)}`, { where: { field: other }, do: 'Give case, conditions or both.' });
  if (json.case !== undefined && typeof json.case !== 'string')
    return fail('scenario.case', `the case is ${told(json.case)}`, {
      where: { field: 'case' },
      do: 'Give the id of a case of the project.',
    });
  return {
    ...(json.case === undefined ? {} : { case: json.case }),
    ...(json.conditions === undefined ? {} : { conditions: conditionsIn(json.conditions) }),
  };
}
