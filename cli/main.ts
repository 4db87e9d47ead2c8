// The command line: the same core from a shell. JSON on stdout, problems as JSON on stderr with exit code 2.
import { UserError, problemsThrown } from '#core/project';
import { COMMANDS } from './commands.ts';

async function main(argv: readonly string[]): Promise<number> {
  const [name, ...rest] = argv;
  const command = Object.hasOwn(COMMANDS, name ?? '') ? COMMANDS[name ?? ''] : undefined;
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
    const errors = problemsThrown(error, `the command "${name ?? ''}"`).map(({ code, what, where, do: advice }) => ({
      code,
      what,
      where,
      do: advice,
    }));
    process.stderr.write(`${JSON.stringify({ errors })}\n`);
    return 2;
  }
}

process.exitCode = await main(process.argv.slice(2));
