import { TextCollector } from '@salt-circle/core';
import { Parser } from 'htmlparser2';

/** The plain text of cleaned HTML: the same string, position for position, that the browser reads from the page. */
export function htmlToText(html: string): string {
  const collector = new TextCollector();
  const parser = new Parser({
    onopentag: (name) => collector.boundary(name),
    onclosetag: (name) => collector.boundary(name),
    ontext: (text) => void collector.text(text),
  });
  parser.write(html);
  parser.end();
  return collector.toString();
}
