/** Hands a file to whoever looks at the page, under a name that every system takes. */
export function saveAs(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = name.replace(/[\\/:*?"<>|]/g, '');
  link.click();
  URL.revokeObjectURL(url);
}

/** What the server calls it (RFC 6266); the name in all letters, where there is one, comes before the plain one. */
export function fileNameOf(response: Response, fallback: string): string {
  const said = response.headers.get('content-disposition') ?? '';
  const whole = /filename\*=UTF-8''([^;]+)/i.exec(said)?.[1];
  if (whole !== undefined) return decodeURIComponent(whole);
  return /filename="?([^";]+)"?/i.exec(said)?.[1] ?? fallback;
}
