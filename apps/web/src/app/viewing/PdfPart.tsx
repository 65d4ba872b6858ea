import { useEffect, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { Loading } from '../../kit/index.js';
import { openPdf, type PDFDocumentProxy } from './pdf.js';
import { PdfPage, type DrawnPage, type PageSize } from './PdfPage.js';
import { PdfTexts } from './pdfText.js';
import { usePdfSearch } from './usePdfSearch.js';
import { BarButton, ViewerBar } from './ViewerBar.js';
import { say } from '../../words/app.js';

const STEPS = [0.5, 0.75, 1, 1.25, 1.5, 2, 3] as const;
/** CSS pixels between pages. */
const GAP = 12;

export interface PdfPartProps {
  readonly address: string;
  readonly name: string;
  /** What is laid over each page that is near the view. */
  readonly over?: (page: DrawnPage, texts: PdfTexts) => ReactNode;
  /** More commands in the strip above the pages. */
  readonly tools?: ReactNode;
  /** The page in view, from 1. */
  readonly onPage?: (page: number) => void;
  /** Brought into view when it changes: a page, from 1, and how far down, 0 to 1. */
  readonly target?: { readonly page: number; readonly y: number } | null;
  readonly onKey?: (event: KeyboardEvent) => void;
}

/** A PDF whose pages appear as one scrolls; those outside of the view are not drawn. */
export function PdfPart({ address, name, ...rest }: PdfPartProps) {
  const [pdf, setPdf] = useState<{ readonly pages: PDFDocumentProxy; readonly texts: PdfTexts } | null>(null);
  const [first, setFirst] = useState<PageSize | null>(null);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    const task = openPdf(address);
    let over = false;
    const open = async () => {
      const document = await task.promise;
      const page = await document.getPage(1);
      const { width, height } = page.getViewport({ scale: 1 });
      if (over) return;
      setFirst({ width, height });
      setPdf({ pages: document, texts: new PdfTexts(document) });
    };
    open().catch(() => {
      if (!over) setFailed(true);
    });
    return () => {
      over = true;
      setPdf(null);
      void task.destroy();
    };
  }, [address]);
  if (failed) return <p className="p-4 text-madder">{say('thisPdfCouldNotBe')}</p>;
  if (pdf === null || first === null) return <Loading what={say('pages')} />;
  return <Pages pdf={pdf.pages} texts={pdf.texts} first={first} name={name} {...rest} />;
}

interface PagesProps extends Omit<PdfPartProps, 'address'> {
  readonly pdf: PDFDocumentProxy;
  readonly texts: PdfTexts;
  readonly first: PageSize;
}

function Pages({ pdf, texts, first, name, over, tools, onPage, target = null, onKey }: PagesProps) {
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  const [zoom, setZoom] = useState<number | null>(null);
  const [page, setPage] = useState(1);
  const search = usePdfSearch(texts);
  useEffect(() => {
    if (box.current === null) return;
    const observer = new ResizeObserver(([entry]) => setWidth(entry?.contentRect.width ?? 0));
    observer.observe(box.current);
    return () => observer.disconnect();
  }, []);
  const scale = zoom ?? (width > 0 ? Math.max(0.2, (width - 8) / first.width) : 1);
  const step = (by: 1 | -1) =>
    setZoom(
      (by === 1 ? STEPS.find((one) => one > scale + 0.01) : STEPS.findLast((one) => one < scale - 0.01)) ?? scale,
    );
  const go = (number: number) => {
    const wanted = Math.min(Math.max(number, 1), pdf.numPages);
    box.current?.querySelector(`[data-page="${wanted}"]`)?.scrollIntoView({ block: 'start' });
  };
  const look = () => {
    const element = box.current;
    if (element === null) return;
    const middle = element.getBoundingClientRect().top + element.clientHeight / 3;
    const pages = [...element.querySelectorAll<HTMLElement>('[data-page]')];
    const shown = pages.findLast((one) => one.getBoundingClientRect().top <= middle);
    const number = Number(shown?.dataset['page'] ?? 1);
    setPage(number);
    if (number !== page) onPage?.(number);
  };
  const measured = width > 0;
  useEffect(() => {
    const element = box.current;
    const sheet = target === null ? null : element?.querySelector<HTMLElement>(`[data-page="${target.page}"]`);
    if (element == null || sheet == null || target === null) return;
    const top = sheet.offsetTop + target.y * sheet.offsetHeight;
    const inView = top >= element.scrollTop && top <= element.scrollTop + element.clientHeight * 0.8;
    if (!inView) element.scrollTo({ top: Math.max(0, top - element.clientHeight / 3) });
  }, [target, measured]);
  const press = (event: KeyboardEvent) => {
    if (event.key === 'PageDown' || event.key === 'PageUp') {
      event.preventDefault();
      go(page + (event.key === 'PageDown' ? 1 : -1));
    } else onKey?.(event);
  };
  return (
    <div className="flex h-full min-h-96 flex-col">
      <ViewerBar label={say('pagesOf', { name })}>
        <BarButton words={say('pageBack')} disabled={page <= 1} onPress={() => go(page - 1)} />
        <span className="text-sm whitespace-nowrap" role="status">
          {say('pageOf', { page, numPages: pdf.numPages })}
        </span>
        <BarButton words={say('pageOn')} disabled={page >= pdf.numPages} onPress={() => go(page + 1)} />
        <span className="mx-1 h-4 border-l border-line" />
        <BarButton words={say('smaller')} onPress={() => step(-1)} />
        <BarButton words={say('larger')} onPress={() => step(1)} />
        <BarButton words={say('fullWidth')} pressed={zoom === null} onPress={() => setZoom(null)} />
        {tools}
        <form
          role="search"
          className="ml-auto flex items-center gap-1"
          onSubmit={(event) => {
            event.preventDefault();
            void search.next().then((found) => found !== null && go(found));
          }}
        >
          <input
            type="search"
            aria-label={say('findIn', { name })}
            placeholder={say('find')}
            value={search.words}
            onChange={({ target }) => search.setWords(target.value)}
            className="w-36 rounded border border-edge bg-paper px-2 py-0.5 text-sm"
          />
          <span className="min-w-16 text-sm text-ink-soft" role="status">
            {search.told}
          </span>
        </form>
      </ViewerBar>
      <div
        ref={box}
        tabIndex={0}
        role="document"
        aria-label={say('pagesPageUpAndPage', { name, numPages: pdf.numPages })}
        data-scroll="pdf"
        className="relative min-h-0 flex-1 overflow-auto bg-crust px-1 py-2"
        onScroll={look}
        onKeyDown={press}
      >
        {measured &&
          Array.from({ length: pdf.numPages }, (_, index) => (
            <PdfPage
              key={index}
              pdf={pdf}
              texts={texts}
              over={over === undefined ? undefined : (drawn) => over(drawn, texts)}
              number={index + 1}
              scale={scale}
              guess={first}
              gap={GAP}
              root={box}
              mark={search.words.trim()}
            />
          ))}
      </div>
    </div>
  );
}
