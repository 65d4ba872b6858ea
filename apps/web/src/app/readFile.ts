/** The bytes of a chosen file as base64, as they are on disk: the server finds out how they are encoded. */
export async function fileAsBase64(file: Blob): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  let binary = '';
  // In pieces, because a call takes a bounded number of arguments.
  for (let from = 0; from < bytes.length; from += 0x8000) {
    binary += String.fromCharCode(...bytes.subarray(from, from + 0x8000));
  }
  return btoa(binary);
}
