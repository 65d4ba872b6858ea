import helmet from 'helmet';
import type { Framing } from './framing.js';

/**
 * Nothing runs, loads or frames but what this server ships. No inline script and no inline style;
 * pictures may be data or blobs, because the browser makes some of its own.
 */
export function securityHeaders(secure: boolean, framing: Framing): ReturnType<typeof helmet> {
  return helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'"],
        styleSrc: ["'self'"],
        fontSrc: ["'self'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        connectSrc: ["'self'"],
        // Films and sounds of drafts, and recordings that are not stored yet.
        mediaSrc: ["'self'", 'blob:'],
        workerSrc: ["'self'"],
        manifestSrc: ["'self'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        // Only pages of platforms that are connected; headers that older browsers know instead say no to all.
        frameAncestors: [() => framing.ancestors],
      },
    },
    strictTransportSecurity: secure ? { maxAge: 31_536_000 } : false,
    referrerPolicy: { policy: 'same-origin' },
    crossOriginEmbedderPolicy: false,
  });
}
