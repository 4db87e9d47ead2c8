import { fail } from '#core/project';

export interface Arguments {
  readonly plain: readonly string[];
  readonly options: ReadonlyMap<string, string>;
}

/** Splits words into plain arguments and --name value pairs; --json stands alone. */
export function readArguments(words: readonly string[], known: readonly string[]): Arguments {
  const plain: string[] = [];
  const options = new Map<string, string>();
  for (let i = 0; i < words.length; i++) {
    const word = words[i];
    if (word === '--json') continue;
    if (!word.startsWith('--')) {
      plain.push(word);
      continue;
    }
    const name = word.slice(2);
    if (!known.includes(name))
      fail('cli.option', `there is no option ${word}`, { do: `Use ${known.map((k) => `--${k}`).join(', ') || 'no option'}.` });
    const value = words[++i];
    if (value === undefined) fail('cli.option-value', `${word} needs a value`, { do: 'Give one after it.' });
    options.set(name, value ?? '');
  }
  return { plain, options };
}

/** A number given to an option. */
export function numberOption(args: Arguments, name: string): number | null {
  const text = args.options.get(name);
  if (text === undefined) return null;
  const value = Number(text);
  return text.trim() !== '' && Number.isFinite(value)
    ? value
    : fail('cli.number', `--${name} is "${text}", not a number`, { do: 'Give a number.' });
}

/** The one plain argument a command needs. */
export function soleArgument(args: Arguments, what: string): string {
  return args.plain[0] ?? fail('cli.missing', `${what} is missing`, { do: `Name ${what}.` });
}
