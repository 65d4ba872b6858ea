import { GlobalWorkerOptions, getDocument, type PDFDocumentLoadingTask } from 'pdfjs-dist';
import workerAddress from 'pdfjs-dist/build/pdf.worker.min.mjs?url';
import { viewAsHeader } from '../view-as/viewAs.js';

GlobalWorkerOptions.workerSrc = workerAddress;

/** Opens a PDF piece by piece: the first page shows before the last one has been loaded. Nothing in it is run. */
export function openPdf(address: string): PDFDocumentLoadingTask {
  const see = viewAsHeader();
  return getDocument({
    url: address,
    withCredentials: true,
    httpHeaders: see === null ? {} : { 'x-salt-circle-view-as': see },
    isEvalSupported: false,
    enableXfa: false,
    useWasm: false,
    disableAutoFetch: true,
    disableStream: true,
    rangeChunkSize: 1 << 17,
    cMapUrl: '/assets/pdf/cmaps/',
    cMapPacked: true,
    standardFontDataUrl: '/assets/pdf/standard_fonts/',
  });
}

export { TextLayer } from 'pdfjs-dist';
export type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist';
