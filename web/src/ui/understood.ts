/** Whether a form holds only what was understood; the first field that does not has the focus then, and says why. */
export function understood(form: HTMLElement | null | undefined): boolean {
  const wrong = form?.querySelector<HTMLElement>('[aria-invalid="true"]');
  wrong?.focus();
  return !wrong;
}
