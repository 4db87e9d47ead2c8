// Brings a fresh clone up: packages, Chromium for the tests, the built app. Node built-ins only: it runs before any install.
// Usage: node scripts/bootstrap.mjs [--build] [--chromium]
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const want = new Set(process.argv.slice(2));

function run(command, args) {
  console.log(`[bootstrap] ${command} ${args.join(' ')}`);
  const result = spawnSync(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } });
  if (result.status !== 0) {
    console.error(`[bootstrap] failed: ${command}`);
    process.exit(result.status ?? 1);
  }
}

const stamp = join(root, 'node_modules/.bootstrap-lock-sha');
const lock = createHash('sha256')
  .update(readFileSync(join(root, 'package-lock.json')))
  .digest('hex');
if (!existsSync(stamp) || readFileSync(stamp, 'utf8') !== lock) {
  run('npm', ['ci', '--no-audit', '--no-fund', '--prefer-offline']);
  mkdirSync(dirname(stamp), { recursive: true });
  writeFileSync(stamp, lock);
}

if (want.has('--chromium')) {
  const chosen = process.env.CHROMIUM_PATH;
  const places = chosen ? [chosen] : ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];
  if (!places.some((p) => existsSync(p))) {
    const canInstall = !chosen && process.platform === 'linux' && existsSync('/usr/bin/apt-get') && process.getuid?.() === 0;
    if (!canInstall) {
      console.error(
        `[bootstrap] no Chromium at ${places.join(' or ')}: install it or set CHROMIUM_PATH. The interface tests need it and are never skipped.`,
      );
      process.exit(1);
    }
    run('apt-get', ['-o', 'DPkg::Lock::Timeout=300', 'update', '-qq']);
    run('apt-get', ['-o', 'DPkg::Lock::Timeout=300', 'install', '-y', '-qq', '--no-install-recommends', 'chromium']);
  }
}

if (want.has('--build')) run(process.execPath, [join(root, 'node_modules/vite/bin/vite.js'), 'build', 'web', '--logLevel', 'warn']);
