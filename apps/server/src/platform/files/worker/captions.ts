import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { decodeText } from '../../bytes/decode-text.js';
import { unescapeHtml } from '../../html/escape.js';
import type { FoundMetadata } from '../../../model/stored-file.js';
import type { Converted } from './converted.js';
import { say } from '../../../words/files.js';

/** When a cue begins and ends, and settings behind it (WebVTT, clause 4.1). */
const TIMES = /^((?:\d{2,}:)?\d{2}:\d{2}\.\d{3})[ \t]+-->[ \t]+((?:\d{2,}:)?\d{2}:\d{2}\.\d{3})(?:[ \t](.*))?$/;
const SETTING =
  /^(vertical:(rl|lr)|line:-?[\d.]+%?(,(start|center|end))?|(position|size):[\d.]+%(,[\w-]+)?|align:(start|center|end|left|right))$/;
/** Marks of a cue that look of letters needs; voices, classes and languages are not among them. */
const MARK = /<(\/?)(b|i|u|ruby|rt)(?:[.\s][^<>]*)?>/g;

/** Captions with their cues alone: no remarks, styles or regions, and no names of who speaks. */
export async function convertCaptions(path: string, folder: string): Promise<Converted> {
  const metadata: FoundMetadata[] = [];
  const tell = (where: string, value: string) => {
    if (value.trim() !== '') metadata.push({ where, value: value.trim().slice(0, 2_000) });
  };
  const blocks = decodeText(await readFile(path))
    .replace(/\r\n?/g, '\n')
    .split(/\n{2,}/);
  const cues = blocks.flatMap((block) => cueOf(block, tell));
  await writeFile(join(folder, 'copy'), `WEBVTT\n\n${cues.map(({ written }) => written).join('\n\n')}\n`);
  return { facts: {}, copyFile: 'copy', copyText: cues.map(({ words }) => words).join('\n'), metadata };
}

function cueOf(block: string, tell: (where: string, value: string) => void): Array<{ written: string; words: string }> {
  const lines = block.split('\n').filter((line) => line !== '');
  const at = lines.findIndex((line) => TIMES.test(line));
  if (at < 0) {
    tell(say('remarkInCaptions'), lines.join(' '));
    return [];
  }
  if (at > 0) tell(say('nameOfCaption'), lines.slice(0, at).join(' '));
  const [, from = '', to = '', settings = ''] = TIMES.exec(lines[at] ?? '') ?? [];
  const kept = settings.split(/[ \t]+/).filter((one) => SETTING.test(one));
  const text = lines.slice(at + 1).join('\n');
  for (const [, voice = ''] of text.matchAll(/<v(?:\.[^\s<>]*)?[ \t]([^<>]*)>/g))
    tell(say('whoSpeaksInCaptions'), voice.trimStart());
  const words = bare(text);
  return [{ written: [`${[from, '-->', to, ...kept].join(' ')}`, words].join('\n'), words: plain(words) }];
}

/** Marks that are known, and signs that could begin others written as signs. */
function bare(text: string): string {
  let out = '';
  let at = 0;
  for (const mark of text.matchAll(MARK)) {
    out += signs(text.slice(at, mark.index)) + `<${mark[1]}${mark[2]}>`;
    at = mark.index + mark[0].length;
  }
  return out + signs(text.slice(at));
}

const signs = (text: string) =>
  plain(text).replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/-->/g, '→').replace(/>/g, '&gt;');
const plain = (text: string) => unescapeHtml(text.replace(/<[^<>]*>/g, ''));
