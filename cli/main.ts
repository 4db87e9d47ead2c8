// The command line: the same core from a shell. JSON on stdout, problems as JSON on stderr with exit code 2.
import { UserError } from '#core/project';
import { COMMANDS } from './commands.ts';

async function main(argv: readonly string[]): Promise<number> {
  const [name, ...rest] = argv;
  const command = COMMANDS[name ?? ''];
  try {
    if (!command) {
      throw new UserError([
        {
          code: 'cli.command',
          what: `there is no command "${name ?? ''}"`,
          where: {},
          do: `Use one of ${Object.keys(COMMANDS).join(', ')}.`,
        },
      ]);
    }
    process.stdout.write(await command(rest));
    return 0;
  } catch (error) {
    const errors =
      error instanceof UserError
        ? error.problems.map(({ code, what, where, do: advice }) => ({ code, what, where, do: advice }))
        : [unexpected(error)];
    process.stderr.write(`${JSON.stringify({ errors })}\n`);
    return 2;
  }
}

function unexpected(error: unknown): { code: string; what: string; where: object; do: string } {
  const what = error instanceof Error ? error.message : String(error);
  return {
    code: error instanceof RangeError ? 'input.range' : 'internal',
    what,
    where: {},
    do: 'Check the input; if it is sound, this is a fault of Outlet.',
  };
}

process.exitCode = await main(process.argv.slice(2));
