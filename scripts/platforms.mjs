import { at, built, installed } from './run.mjs';

await installed();
await built();
const commands = await import(at('apps', 'server', 'dist', 'features', 'lti', 'platforms', 'commands.js'));
const folder = process.env.SALT_CIRCLE_DATA ?? at('data', 'production');
const [, , what = 'list', email = ''] = process.argv;

const COMMANDS = {
  async list() {
    const lines = await commands.listPlatforms(folder);
    const shown = lines.map(({ id, name, issuer, active, answeredAt, fault }) =>
      [
        id,
        name,
        issuer,
        active ? 'connected' : 'paused',
        answeredAt === null ? 'has not answered yet' : `answered ${answeredAt}`,
        ...(fault === null ? [] : [fault]),
      ].join('\t'),
    );
    return [...shown, lines.length === 1 ? '1 platform' : `${lines.length} platforms`].join('\n');
  },
  async allow() {
    return `${await commands.letRunPlatforms(folder, email, true)} sees to platforms now: “Platforms” is in the menu at the top right.`;
  },
  async remove() {
    return `${await commands.removePlatform(folder, email)} is removed. A server that is up lets its pages frame Salt Circle until it is restarted.`;
  },
  async disallow() {
    return `${await commands.letRunPlatforms(folder, email, false)} sees to platforms no more.`;
  },
};

try {
  if (!Object.hasOwn(COMMANDS, what))
    throw new Error('Use: npm run platforms -- list, remove ID, allow ADDRESS, or disallow ADDRESS.');
  process.stdout.write(`\n${await COMMANDS[what]()}\n`);
} catch (error) {
  process.stdout.write(`\nNothing was done. ${error.message}\n`);
  process.exitCode = 1;
}
