/** The text with a variable put in where the field's caret is; the caret goes behind it. */
export function insertAt(field: string, text: string, variable: string): string {
  const element = document.getElementById(field) as HTMLTextAreaElement | null;
  const [start, end] = element ? [element.selectionStart, element.selectionEnd] : [text.length, text.length];
  const made = `{{ ${variable} }}`;
  requestAnimationFrame(() => {
    element?.focus();
    element?.setSelectionRange(start + made.length, start + made.length);
  });
  return text.slice(0, start) + made + text.slice(end);
}
