import type { Editor } from '@tiptap/react';
import type { EditorView } from '@tiptap/pm/view';
import { useRef, useState } from 'react';
import { say } from '../../words/kit.js';

/** A text without words may still hold a picture. */
export function isBlank(editor: Editor): boolean {
  return editor.isEmpty && !editor.getHTML().includes('<img');
}

/** Pictures that are still in the text itself are not stored yet, and are not saved with it. */
export function stored(html: string): string {
  // regex: over what somebody pastes, in their own browser
  return html.replace(/<img[^>]*src="(data|blob):[^>]*>/g, '');
}

export interface PictureTaking {
  readonly problem: string | null;
  /** @returns whether there were pictures, which then are taken care of */
  readonly take: (view: EditorView, files: readonly File[], event?: Event) => boolean;
  /** Stores pictures that came inside of pasted text, and puts their addresses in their place. */
  readonly adopt: (view: EditorView) => void;
}

/** Pictures on their way into a text: each is stored first, then stands in the text by its address. */
export function usePictures(onPicture: ((file: File) => Promise<string>) | undefined): PictureTaking {
  const [problem, setProblem] = useState<string | null>(null);
  const adopting = useRef(new Set<string>());

  const store = async (file: File): Promise<string | null> => {
    setProblem(null);
    try {
      return (await onPicture?.(file)) ?? null;
    } catch (error) {
      const told = (error as { sentence?: string; message?: string }).sentence ?? (error as Error).message;
      setProblem(say('wasNotPutIn', { name: file.name, told }));
      return null;
    }
  };

  const insert = async (view: EditorView, files: readonly File[]) => {
    for (const file of files) {
      const src = await store(file);
      const kind = view.state.schema.nodes['image'];
      if (src === null || kind === undefined) continue;
      view.dispatch(view.state.tr.replaceSelectionWith(kind.create({ src, alt: say('picture') })));
    }
  };

  return {
    problem,
    take: (view, files, event) => {
      const pictures = files.filter(({ type }) => type.startsWith('image/'));
      if (onPicture === undefined || pictures.length === 0) return false;
      event?.preventDefault();
      void insert(view, pictures);
      return true;
    },
    adopt: (view) => {
      if (onPicture === undefined) return;
      view.state.doc.descendants((node) => {
        const src = String(node.attrs['src'] ?? '');
        if (node.type.name !== 'image' || !src.startsWith('data:') || adopting.current.has(src)) return;
        adopting.current.add(src);
        void replaceStored(view, src, store);
      });
    },
  };
}

async function replaceStored(
  view: EditorView,
  src: string,
  store: (file: File) => Promise<string | null>,
): Promise<void> {
  const address = await store(fileOf(src));
  // The text may have changed meanwhile: looked for anew.
  const places: number[] = [];
  view.state.doc.descendants((node, at) => {
    if (node.type.name === 'image' && node.attrs['src'] === src) places.push(at);
  });
  const change = view.state.tr;
  for (const at of places.reverse()) {
    if (address === null) change.delete(at, at + 1);
    else change.setNodeAttribute(at, 'src', address);
  }
  view.dispatch(change);
}

/** The content policy lets nothing be fetched from a data address, so it is taken apart by hand. */
function fileOf(src: string): File {
  const [head = '', data = ''] = src.split(',', 2);
  const type = /^data:([\w/+.-]+)/.exec(head)?.[1] ?? 'image/png';
  const bytes = Uint8Array.from(atob(data), (letter) => letter.charCodeAt(0));
  return new File([bytes], 'picture', { type });
}
