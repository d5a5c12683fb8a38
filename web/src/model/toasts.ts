// What is said in passing: what was done, and how to undo it.

import { Observable } from './observable';

export interface Toast {
  id: number;
  words: string;
  undo: (() => void) | null;
}

class Toasts extends Observable<{ list: readonly Toast[] }> {
  private last = 0;

  say(words: string, undo: (() => void) | null = null): void {
    this.last += 1;
    this.update({ list: [...this.state.list, { id: this.last, words, undo }].slice(-3) });
  }

  drop(id: number): void {
    this.update({ list: this.state.list.filter((toast) => toast.id !== id) });
  }
}

export const toasts = new Toasts({ list: [] });
