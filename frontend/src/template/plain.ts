/** What a rich text says. */
export function plain(html: string | undefined): string {
  return new DOMParser().parseFromString(html ?? "", "text/html").body.textContent.trim();
}
