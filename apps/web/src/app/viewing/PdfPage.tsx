import { useEffect, useRef, useState, type ReactNode, type RefObject } from 'react';
import { TextLayer, type PDFDocumentProxy } from './pdf.js';
import type { PdfTexts } from './pdfText.js';

export interface PageSize {
  /** CSS pixels at full size. */
  readonly width: number;
  readonly height: number;
}

/** A page that is on the screen, for what is laid over it. */
export interface DrawnPage {
  /** From 1. */
  readonly number: number;
  readonly sheet: HTMLElement;
  /** An element for each run of `PdfTexts.runs`, in their order; null until the words are there. */
  readonly spans: readonly HTMLElement[] | null;
}

export interface PdfPageProps {
  readonly pdf: PDFDocumentProxy;
  readonly texts: PdfTexts;
  /** From 1. */
  readonly number: number;
  readonly scale: number;
  /** Until the page itself has been read: the size of the first one. */
  readonly guess: PageSize;
  readonly gap: number;
  readonly root: RefObject<HTMLDivElement | null>;
  /** Words to mark. */
  readonly mark: string;
  /** What is laid over the page, while it is near the view. */
  readonly over?: ((page: DrawnPage) => ReactNode) | undefined;
}

/** How far outside of the view a page is drawn already. */
const AHEAD = '600px 0px';

/** One page: an empty sheet of the right size, and what is on it only while it is near the view. */
export function PdfPage({ pdf, texts, number, scale, guess, gap, root, mark, over: layer }: PdfPageProps) {
  const [sheet, setSheet] = useState<HTMLDivElement | null>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const words = useRef<HTMLDivElement>(null);
  const [near, setNear] = useState(false);
  const [size, setSize] = useState(guess);
  const [spans, setSpans] = useState<readonly HTMLElement[] | null>(null);

  useEffect(() => {
    if (sheet === null) return;
    const observer = new IntersectionObserver(([entry]) => setNear(entry?.isIntersecting ?? false), {
      root: root.current,
      rootMargin: AHEAD,
    });
    observer.observe(sheet);
    return () => observer.disconnect();
  }, [root, sheet]);

  useEffect(() => {
    if (!near) return;
    let stop = () => {};
    let over = false;
    const draw = async () => {
      const [page, content] = await Promise.all([pdf.getPage(number), texts.content(number)]);
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
      const layer = new TextLayer({ textContentSource: content, container: words.current, viewport });
      stop = () => {
        task.cancel();
        layer.cancel();
      };
      await Promise.all([task.promise, layer.render()]);
      if (!over) setSpans(layer.textDivs);
    };
    // A page that scrolled away while it was drawn is given up, which is no fault.
    draw().catch(() => undefined);
    return () => {
      over = true;
      setSpans(null);
      stop();
    };
  }, [near, pdf, texts, number, scale]);

  useEffect(() => {
    const wanted = mark.toLowerCase();
    for (const span of spans ?? []) {
      span.classList.toggle('found', wanted !== '' && span.textContent.toLowerCase().includes(wanted));
    }
  }, [mark, spans]);

  const width = size.width * scale;
  const height = size.height * scale;
  return (
    <div
      ref={setSheet}
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
          {sheet !== null && layer?.({ number, sheet, spans })}
        </>
      )}
    </div>
  );
}
