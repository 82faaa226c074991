/** The Bench’s keys on a screen of steps: where something is typed or has the focus it keeps its own. */
import { useEventListener } from '@vueuse/core';
import { pressed, type Pressed } from './keymap.ts';

/** `press`: true where the key was used. */
export function useStepKeys(press: (key: Pressed) => boolean): void {
  useEventListener('keydown', (event) => {
    const { target } = event;
    if (event.ctrlKey || event.metaKey || event.altKey || !(target instanceof HTMLElement)) return;
    if (target.closest('textarea, select, [role="combobox"]') ?? (target instanceof HTMLInputElement && target.type === 'text')) return;
    if ([' ', 'Enter'].includes(event.key) && target.closest('button, a, summary, input')) return;
    const key = pressed(event.key);
    if (key && press(key)) event.preventDefault();
  });
}

/**
 * Presses the button of a step that a key stands for: an answer by its number, the cautions, or the first of `confirm` that is there (data-test). False
 * where there is none.
 */
export function pressStep(sheet: HTMLElement | undefined, { command, nth }: Pressed, confirm: readonly string[]): boolean {
  const button = (test: string): HTMLElement | null => sheet?.querySelector<HTMLElement>(`[data-test="${test}"]`) ?? null;
  const wanted =
    command === 'answer'
      ? (sheet?.querySelectorAll<HTMLElement>('[data-result]')[nth] ?? null)
      : command === 'cautions'
        ? button('read-cautions')
        : command === 'confirm'
          ? (confirm.map(button).find((one) => one !== null) ?? null)
          : null;
  wanted?.click();
  return wanted !== null;
}
