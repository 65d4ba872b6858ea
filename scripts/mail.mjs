import { at, built, installed } from './run.mjs';

// Letters of an installation, beside a server that is up: how many wait, and what becomes of those that are held or have failed.

await installed();
await built();
const commands = await import(at('apps', 'server', 'dist', 'features', 'mail', 'commands.js'));
const folder = process.env.SALT_CIRCLE_DATA ?? at('data', 'production');
const counted = (count) => (count === 1 ? '1 letter' : `${count} letters`);

const COMMANDS = {
  async status() {
    const { held, waiting, failed } = await commands.mailStatus(folder);
    return `${counted(waiting)} waiting, ${failed} failed.${held ? ' Mail and scores are held: this folder was restored or moved. Use "send" or "drop".' : ''}`;
  },
  async send() {
    return `Mail and scores are sent again; ${counted(await commands.endMailHold(folder, 'send'))} waited.`;
  },
  async drop() {
    return `Mail and scores are sent again; ${counted(await commands.endMailHold(folder, 'drop'))} that waited will not be sent.`;
  },
  async retry() {
    return `${counted(await commands.retryFailed(folder))} will be sent again.`;
  },
};

const what = process.argv[2] ?? 'status';
try {
  if (!Object.hasOwn(COMMANDS, what)) throw new Error('Use: npm run mail -- status, send, drop, or retry.');
  process.stdout.write(`\n${await COMMANDS[what]()}\n`);
} catch (error) {
  process.stdout.write(`\nNothing was done. ${error.message}\n`);
  process.exitCode = 1;
}
