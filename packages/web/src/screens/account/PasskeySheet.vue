<script setup lang="ts">
/** One’s own passkeys: a second factor that is touched, not typed. */
import { addPasskeySchema, boundsOf, type Passkey } from '@veglia/contract';
import { computed, ref, shallowRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached, type Reply } from '../../api.ts';
import TextField from '../../parts/TextField.vue';
import { makePasskey } from '../door/passkey.ts';

const props = defineProps<{
  /** Asks, and says what was refused. */
  ask: <T>(reply: () => Promise<Reply<T>>, done?: string) => Promise<T | undefined>;
  /** Some second factor is set: without one there are no passkeys either. */
  hasFactor: boolean;
}>();
const emit = defineEmits<{ changed: [recovery: readonly string[]] }>();
const { t, d } = useI18n();
const passkeys = shallowRef<readonly Passkey[]>([]);
const possible = ref(true);
const name = ref('');
const nameSchema = addPasskeySchema.shape.name;
/** Before the key is touched: a name that isn't taken would have it touched for nothing. */
const nameFits = computed(() => nameSchema.safeParse(name.value).success);
const brokenOff = ref(false);

function show(reply: { passkeys: readonly Passkey[]; possible: boolean } | undefined): void {
  if (!reply) return;
  passkeys.value = reply.passkeys;
  possible.value = reply.possible;
}
async function load(): Promise<void> {
  try {
    const reply = await api.passkeys();
    if (reply.ok) show(reply.value);
  } catch (error) {
    // The screen says so where it asks for something.
    if (!(error instanceof NotReached)) throw error;
  }
}
watch(() => props.hasFactor, load, { immediate: true });

async function add(): Promise<void> {
  brokenOff.value = false;
  const options = await props.ask(() => api.offerPasskey());
  if (!options) return;
  const passkey = await makePasskey(options);
  if (!passkey) {
    brokenOff.value = true;
    return;
  }
  const codes = await props.ask(() => api.addPasskey({ name: name.value, passkey }), t('account.passkeyDone'));
  if (!codes) return;
  name.value = '';
  await load();
  emit('changed', codes);
}
async function drop(id: string): Promise<void> {
  show(await props.ask(() => api.dropPasskey(id)));
  emit('changed', []);
}
</script>

<template>
  <section class="sheet stack" data-test="passkeys">
    <h2>{{ t('account.passkeys') }}</h2>
    <p class="soft">{{ t('account.passkeysHelp') }}</p>
    <ul v-if="passkeys.length > 0" class="kept">
      <li v-for="one in passkeys" :key="one.id" class="inline" data-test="passkey">
        <span class="name">
          <strong>{{ one.name }}</strong>
          <span class="soft">{{
            one.usedAt
              ? t('account.passkeyUsed', { at: one.at, day: d(new Date(one.usedAt), 'minute') })
              : t('account.passkeyUnused', { at: one.at })
          }}</span>
        </span>
        <button type="button" class="push" :aria-label="t('account.passkeyRemoveOf', { name: one.name })" @click="drop(one.id)">
          {{ t('account.passkeyRemove') }}
        </button>
      </li>
    </ul>
    <p v-if="!possible" data-test="passkey-not-here">{{ t('account.passkeyNotHere') }}</p>
    <form v-else class="stack" novalidate @submit.prevent="add">
      <TextField
        id="passkey-name"
        v-model="name"
        :bounds="boundsOf(nameSchema)"
        :label="t('account.passkeyName')"
        :placeholder="t('account.passkeyExample')"
      />
      <p v-if="brokenOff" class="alarm" role="alert">{{ t('account.passkeyBrokenOff') }}</p>
      <button type="submit" class="push" :disabled="!nameFits" data-test="add-passkey">{{ t('account.passkeyAdd') }}</button>
    </form>
  </section>
</template>

<style scoped>
.stack {
  display: grid;
  gap: 10px;
}
.stack > * {
  margin: 0;
}
.stack > .push {
  justify-self: start;
}
.kept {
  padding: 0;
  list-style: none;
  display: grid;
  gap: 8px;
}
.kept > li {
  justify-content: space-between;
}
.name {
  display: grid;
  min-width: 0;
  overflow-wrap: anywhere;
}
</style>
