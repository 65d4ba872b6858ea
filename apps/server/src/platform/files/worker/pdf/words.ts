import { wordsBy } from '@salt-circle/core';
import {
  PDFArray,
  PDFDict,
  PDFHexString,
  PDFName,
  PDFStream,
  PDFString,
  type PDFContext,
  type PDFObject,
} from '@cantoo/pdf-lib';
import type { FoundMetadata } from '../../../../model/stored-file.js';
import { scanXml } from '../../../bytes/xml.js';
import { plainBytes } from './streams.js';
import { say } from '../../../../words/files.js';

/** What a key of a dictionary holds, for people. */
const WHERE: Readonly<Record<string, string>> = wordsBy(say, {
  Author: 'authorInPdfsProperties',
  Title: 'titleInPdfsProperties',
  Subject: 'subjectInPdfsProperties',
  Keywords: 'keywordsInPdfsProperties',
  Creator: 'programInPdfsProperties',
  Contents: 'wordsOfRemarkInPdf',
  RC: 'wordsOfRemarkInPdf',
  Subj: 'subjectOfRemarkInPdf',
  T: 'authorOfRemarkOrName',
  TU: 'noteOnFormFieldOf',
  V: 'valueOfFormFieldOf',
  DV: 'valueOfFormFieldOf',
  Alt: 'alternativeTextInPdf',
  ActualText: 'textBehindTextOfPdf',
  E: 'textBehindTextOfPdf',
  URI: 'addressOfLinkInPdf',
  Name: 'signatureOrLayerOfPdf',
  Reason: 'signatureOfPdf',
  Location: 'signatureOfPdf',
  ContactInfo: 'signatureOfPdf',
  F: 'fileThatPdfHoldsOr',
  UF: 'fileThatPdfHoldsOr',
  Desc: 'fileThatPdfHoldsOr',
});

/** Numbers, times and bytes, and what is drawn or copied anyway. */
const NOT_WORDS = new Set([
  ...['CreationDate', 'ModDate', 'M', 'ID', 'LastModified', 'Lookup', 'Registry', 'Ordering', 'DA', 'DS', 'Lang'],
  ...['Cert', 'ByteRange', 'CheckSum', 'Panose', 'Producer', 'Dest', 'D', 'NM', 'IRT'],
]);
/** Values; a book has some hundred. */
const MOST = 3_000;
/** UTF-16 code units of one of them. */
const LONGEST = 2_000;

/** Everything that the file says in words beside what its pages show, whatever of it is in the copy. */
export function wordsBeside(context: PDFContext): FoundMetadata[] {
  const found = new Map<string, FoundMetadata>();
  const tell = (where: string, words: string) => {
    const value = words.trim().slice(0, LONGEST);
    if (/\p{L}{2}/u.test(value) && found.size < MOST) found.set(`${where}\n${value}`, { where, value });
  };
  for (const [, object] of context.enumerateIndirectObjects()) {
    if (object instanceof PDFStream && object.dict.lookup(PDFName.of('Type')) === PDFName.of('Metadata'))
      xmp(object, tell);
    collect(object, tell);
  }
  const { Info } = context.trailerInfo;
  if (Info instanceof PDFDict) collect(Info, tell);
  return [...found.values()];
}

function collect(object: PDFObject, tell: (where: string, words: string) => void): void {
  const open: Array<readonly [key: string, value: PDFObject]> = [['', object]];
  for (let next = open.pop(); next !== undefined; next = open.pop()) {
    const [key, value] = next;
    if (value instanceof PDFString || value instanceof PDFHexString) {
      if (!NOT_WORDS.has(key)) tell(WHERE[key] ?? say('dataInsidePdf'), decoded(value));
    } else if (value instanceof PDFArray) open.push(...value.asArray().map((one) => [key, one] as const));
    else {
      const dict = value instanceof PDFStream ? value.dict : value;
      if (!(dict instanceof PDFDict) || dict.lookup(PDFName.of('Type')) === PDFName.of('Sig')) {
        if (dict instanceof PDFDict) signature(dict, tell);
        continue;
      }
      for (const [name, one] of dict.entries()) {
        const called = name.decodeText();
        open.push([called === 'Title' && dict.has(PDFName.of('Parent')) ? 'bookmark' : called, one]);
      }
    }
  }
}

/** Its bytes are no words. */
function signature(dict: PDFDict, tell: (where: string, words: string) => void): void {
  for (const name of ['Name', 'Reason', 'Location', 'ContactInfo']) {
    const value = dict.lookup(PDFName.of(name));
    if (value instanceof PDFString || value instanceof PDFHexString) tell(say('signatureOfPdf'), decoded(value));
  }
}

function decoded(value: PDFString | PDFHexString): string {
  try {
    return value.decodeText();
  } catch {
    return '';
  }
}

function xmp(stream: PDFStream, tell: (where: string, words: string) => void): void {
  try {
    scanXml(Buffer.from(plainBytes(stream)), {
      ontext: (words) => tell(say('xmpDataOfPdf'), words),
      onopentag: (_, attributes) => Object.values(attributes).forEach((words) => tell(say('xmpDataOfPdf'), words)),
    });
  } catch {
    // What cannot be read is not in the copy either.
  }
}
