/** What a screen asks of the server by a press: what it refused is said in words, and nothing is pressed twice meanwhile. */
import { ref, type Ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { NotReached, type Reply } from './api.ts';

export interface Asked {
  /** Why it was refused, for the person in front. */
  readonly wrong: Ref<string | undefined>;
  readonly busy: Ref<boolean>;
  /** Undefined where it was refused or not reached. */
  readonly ask: <T>(reply: Promise<Reply<T>>) => Promise<T | undefined>;
}

export function useAsked(): Asked {
  const { t } = useI18n();
  const wrong = ref<string>();
  const busy = ref(false);
  async function ask<T>(reply: Promise<Reply<T>>): Promise<T | undefined> {
    wrong.value = undefined;
    busy.value = true;
    try {
      const answer = await reply;
      if (answer.ok) return answer.value;
      wrong.value = [answer.problem.title, ...(answer.problem.problems ?? []).map(({ sentence }) => sentence)].join(' ');
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
      wrong.value = t('common.notReached');
    } finally {
      busy.value = false;
    }
    return undefined;
  }
  return { wrong, busy, ask };
}
