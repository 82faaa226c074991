/** The practice job of this browser: offered once, and never again to somebody who declined. */
import { useLocalStorage } from '@vueuse/core';

/** Id of the job that is being practised on; empty: none. */
export const practiceJob = useLocalStorage('veglia.practice.job', '');
/** No longer offered by itself. */
export const practiceOver = useLocalStorage('veglia.practice.over', 'no');
/** The first look round the Bench was taken. */
export const lookedRound = useLocalStorage('veglia.practice.round', 'no');
