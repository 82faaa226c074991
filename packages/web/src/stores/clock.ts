/** The time, as screens see it: whole seconds, one ticker for all. */
import { useTimestamp } from '@vueuse/core';
import { computed, type ComputedRef, type Ref } from 'vue';

const now = useTimestamp({ interval: 1000 });
/** For what changes by the minute: nothing is worked out anew each second for it. */
const quarter = 15_000;
const coarse = computed(() => Math.floor(now.value / quarter) * quarter);

/** Milliseconds since 1970. */
export const useNow = (): Ref<number> => now;
export const useCoarseNow = (): ComputedRef<number> => coarse;

/** 75 -> 1:15; an hour and more as 1:02:05. */
export function clockTime(seconds: number): string {
  const whole = Math.max(0, Math.ceil(seconds));
  const parts = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, whole % 60];
  const [hours, minutes, rest] = parts.map((part) => String(part).padStart(2, '0'));
  return parts[0] === 0 ? `${Number(minutes)}:${rest}` : `${Number(hours)}:${minutes}:${rest}`;
}
