import { scanXml } from '../../../platform/bytes/xml.js';

interface Thread {
  readonly id: string;
  /** The comment, then its answers. */
  readonly words: readonly string[];
}

/** Comments with what was answered to them; answers are tied by [MS-DOCX] 2.5.1, and stand alone where they are not. */
export function commentThreads(comments: Buffer | undefined, extended: Buffer | undefined): Thread[] {
  if (comments === undefined) return [];
  const parents = new Map<string, string>();
  if (extended !== undefined) {
    scanXml(extended, {
      onopentag: (name, attributes) => {
        const [own, parent] = [attributes['w15:paraId'], attributes['w15:paraIdParent']];
        if (name === 'w15:commentEx' && own !== undefined && parent !== undefined) parents.set(own, parent);
      },
    });
  }
  const all: Array<{ readonly id: string; lines: string[]; paragraph: string }> = [];
  let letters = false;
  scanXml(comments, {
    onopentag: (name, attributes) => {
      if (name === 'w:comment') all.push({ id: attributes['w:id'] ?? '', lines: [], paragraph: '' });
      const last = all.at(-1);
      if (name === 'w:p' && last !== undefined) {
        last.lines.push('');
        last.paragraph = attributes['w14:paraId'] ?? last.paragraph;
      }
      letters = name === 'w:t';
      if (name === 'w:br' || name === 'w:tab') add(last, name === 'w:br' ? '\n' : '\t');
    },
    ontext: (some) => {
      if (letters) add(all.at(-1), some);
    },
    onclosetag: () => {
      letters = false;
    },
  });
  const roots = all.filter(({ paragraph }) => !parents.has(paragraph));
  return roots.map(({ id, lines, paragraph }) => ({
    id,
    words: [lines, ...all.filter((one) => parents.get(one.paragraph) === paragraph).map((one) => one.lines)].map((of) =>
      of.join('\n').trim(),
    ),
  }));
}

function add(comment: { readonly lines: string[] } | undefined, letters: string): void {
  if (comment === undefined) return;
  if (comment.lines.length === 0) comment.lines.push('');
  comment.lines[comment.lines.length - 1] += letters;
}
