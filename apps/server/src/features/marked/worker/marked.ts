export { docx } from './docx.js';
export { pdf } from './pdf.js';
