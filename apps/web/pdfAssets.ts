import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { Plugin } from 'vite';

const PACKAGE = dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json'));
const FOLDERS = ['cmaps', 'standard_fonts'] as const;

/** Ships the character maps and standard fonts that PDFs may rely on, so that they show without a network. */
export function pdfAssets(): Plugin {
  return {
    name: 'salt-circle-pdf-assets',
    generateBundle() {
      for (const folder of FOLDERS) {
        for (const name of readdirSync(join(PACKAGE, folder))) {
          const source = readFileSync(join(PACKAGE, folder, name));
          this.emitFile({ type: 'asset', fileName: `assets/pdf/${folder}/${name}`, source });
        }
      }
    },
    configureServer(server) {
      server.middlewares.use('/assets/pdf', (request, response, next) => {
        const match = /^\/(cmaps|standard_fonts)\/([\w.-]+)$/.exec(request.url ?? '');
        if (match === null) return next();
        response.end(readFileSync(join(PACKAGE, match[1] as string, match[2] as string)));
      });
    },
  };
}
