/** What a sheet asks for after a password that was right: a code, or a passkey where one was made for this name of the server. */
import type { PasskeyOptions, Session } from '@veglia/contract';
import { ref, shallowRef, type Ref, type ShallowRef } from 'vue';
import { api, type Reply } from '../../api.ts';
import { signWithPasskey } from './passkey.ts';

export interface Factor {
  readonly needed: Ref<boolean>;
  readonly code: Ref<string>;
  /** What a passkey has to sign; null where there is none. */
  readonly options: ShallowRef<PasskeyOptions | null>;
  /** The password was right. */
  need(): Promise<void>;
  /** Asks the passkey; undefined where the browser or the person broke it off. */
  sign(): Promise<Reply<Session> | undefined>;
}

export function useFactor(neededAlready = false): Factor {
  const needed = ref(neededAlready);
  const code = ref('');
  const options = shallowRef<PasskeyOptions | null>(null);
  return {
    needed,
    code,
    options,
    async need() {
      needed.value = true;
      const reply = await api.askPasskey();
      options.value = reply.ok ? reply.value : null;
    },
    async sign() {
      if (!options.value) return undefined;
      const passkey = await signWithPasskey(options.value);
      if (!passkey) return undefined;
      // Signed once, it is used up, whatever the server says.
      options.value = null;
      return api.usePasskey(passkey);
    },
  };
}
