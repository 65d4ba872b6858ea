import { useEffect, useRef, useState, type RefObject } from 'react';
import { TextLayer, type PDFDocumentProxy } from './pdf.js';

export interface PageSize {
  /** CSS pixels at full size. */
  readonly width: number;
  readonly height: number;
}

export interface PdfPageProps {
  readonly pdf: PDFDocumentProxy;
  /** From 1. */
  readonly number: number;
  readonly scale: number;
  /** Until the page itself has been read: the size of the first one. */
  readonly guess: PageSize;
  readonly gap: number;
  readonly root: RefObject<HTMLDivElement | null>;
  /** Words to mark. */
  readonly mark: string;
}

/** How far outside of the view a page is drawn already. */
const AHEAD = '600px 0px';

/** One page: an empty sheet of the right size, and what is on it only while it is near the view. */
export function PdfPage({ pdf, number, scale, guess, gap, root, mark }: PdfPageProps) {
  const sheet = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const words = useRef<HTMLDivElement>(null);
  const [near, setNear] = useState(false);
  const [size, setSize] = useState(guess);
  const [read, setRead] = useState(0);

  useEffect(() => {
    if (sheet.current === null) return;
    const observer = new IntersectionObserver(([entry]) => setNear(entry?.isIntersecting ?? false), {
      root: root.current,
      rootMargin: AHEAD,
    });
    observer.observe(sheet.current);
    return () => observer.disconnect();
  }, [root]);

  useEffect(() => {
    if (!near) return;
    let stop = () => {};
    let over = false;
    const draw = async () => {
      const page = await pdf.getPage(number);
      const whole = page.getViewport({ scale: 1 });
      const viewport = page.getViewport({ scale });
      if (over || canvas.current === null || words.current === null) return;
      setSize({ width: whole.width, height: whole.height });
      const density = Math.min(window.devicePixelRatio || 1, 2);
      canvas.current.width = Math.floor(viewport.width * density);
      canvas.current.height = Math.floor(viewport.height * density);
      const task = page.render({
        canvas: canvas.current,
        viewport,
        transform: density === 1 ? undefined : [density, 0, 0, density, 0, 0],
      });
      words.current.replaceChildren();
      const layer = new TextLayer({ textContentSource: page.streamTextContent(), container: words.current, viewport });
      stop = () => {
        task.cancel();
        layer.cancel();
      };
      await Promise.all([task.promise, layer.render()]);
      if (!over) setRead((count) => count + 1);
    };
    // A page that scrolled away while it was drawn is given up, which is no fault.
    draw().catch(() => undefined);
    return () => {
      over = true;
      stop();
    };
  }, [near, pdf, number, scale]);

  useEffect(() => {
    const layer = words.current;
    if (layer === null || read === 0) return;
    const wanted = mark.toLowerCase();
    for (const span of layer.querySelectorAll('span')) {
      span.classList.toggle('found', wanted !== '' && span.textContent.toLowerCase().includes(wanted));
    }
  }, [mark, read]);

  const width = size.width * scale;
  const height = size.height * scale;
  return (
    <div
      ref={sheet}
      data-page={number}
      data-drawn={near}
      className="pdf-sheet relative mx-auto bg-white outline outline-line"
      style={{
        width: `${width}px`,
        height: `${height}px`,
        marginBottom: `${gap}px`,
        ['--total-scale-factor' as string]: scale,
      }}
    >
      {near && (
        <>
          <canvas ref={canvas} aria-hidden="true" style={{ width: `${width}px`, height: `${height}px` }} />
          <div ref={words} className="pdf-words" />
        </>
      )}
    </div>
  );
}
