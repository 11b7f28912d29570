/** To the field for feedback, past the pile and the desk. */
export function toFeedback(): void {
  document.querySelector<HTMLElement>("[data-feedback]")?.focus();
}
