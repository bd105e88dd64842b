/** What editors hold that is not saved yet, so that the try-out can try it. */
export type Unsaved = { path: string; value: unknown };

class UnsavedChanges {
  private held = new Map<string, Unsaved[]>();
  private all: Unsaved[] = [];
  private listeners = new Set<() => void>();

  /** What an editor holds now; none where it is saved or closed. */
  hold(editor: string, changes: Unsaved[]) {
    const before = JSON.stringify(this.held.get(editor) ?? []);
    if (before === JSON.stringify(changes)) return;
    if (changes.length) this.held.set(editor, changes);
    else this.held.delete(editor);
    this.all = [...this.held.values()].flat();
    for (const listener of this.listeners) listener();
  }

  read = () => this.all;

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
}

export const unsaved = new UnsavedChanges();
