<script setup lang="ts">
/** Who is there: by a PIN on a trusted bench, a password, or a code that was shown once. Over whatever is on the screen. */
import { passwordBounds, type Session } from '@veglia/contract';
import { computed, reactive, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached, type Reply } from '../../api.ts';
import TextField from '../../parts/TextField.vue';
import { useSession } from '../../stores/session.ts';
import { useFactor } from './factor.ts';
import PinPad from './PinPad.vue';

const { t } = useI18n();
const session = useSession();
const form = reactive({ name: '', password: '', code: '' });
const way = ref<'pin' | 'password' | 'code'>('password');
const chosen = ref<string>();
const factor = useFactor();
const { needed: needsFactor, code: factorCode, options: passkey } = factor;
const wrong = ref<string>();
const busy = ref(false);
const setUp = computed(() => session.state?.setUp === true);
const bench = computed(() => session.state?.bench ?? undefined);
const chosenName = computed(() => bench.value?.people.find(({ id }) => id === chosen.value)?.name ?? '');
watch(
  bench,
  (now) => {
    if (!now || now.people.length === 0) return;
    way.value = 'pin';
    const last = now.people.find(({ id }) => id === session.person?.id);
    chosen.value ??= last?.id ?? (now.people.length === 1 ? now.people[0]?.id : undefined);
  },
  { immediate: true },
);

/** What was typed stays but for the secret; a second factor is asked for where there is one. */
async function send(reply: () => Promise<Reply<Session> | undefined>): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  wrong.value = undefined;
  try {
    const came = await reply();
    if (!came) {
      wrong.value = t('door.passkeyNot');
      return;
    }
    const said = await session.become(Promise.resolve(came));
    if (said.ok) return;
    if (said.problem.code === 'code-needed') await factor.need();
    else wrong.value = [said.problem.title, ...(said.problem.problems ?? []).map(({ sentence }) => sentence)].join(' ');
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    wrong.value = t('common.notReached');
    session.unreached = true;
  } finally {
    busy.value = false;
  }
}
const signIn = (): Promise<void> =>
  send(() => api.signIn({ name: form.name, password: form.password, ...(factorCode.value === '' ? {} : { code: factorCode.value }) }));
const join = (): Promise<void> =>
  send(() => api.joinByCode({ code: form.code, password: form.password, ...(setUp.value ? { name: form.name } : {}) }));
function pinned(pin: string): void {
  const person = chosen.value;
  if (person !== undefined) void send(() => api.signInByPin({ person, pin }));
}
</script>

<template>
  <section class="door" role="dialog" aria-modal="true" :aria-label="t('door.title')" data-test="door">
    <div class="sheet box">
      <p class="mark"><img src="/lamp.svg" alt="" width="36" height="36" />{{ t('app.name') }}</p>
      <p v-if="session.away && !session.state" class="alarm" role="alert">{{ t('door.away') }}</p>
      <template v-else-if="setUp || way === 'code'">
        <h1>{{ t(setUp ? 'door.setUpTitle' : 'door.joinTitle') }}</h1>
        <p class="soft">{{ t(setUp ? 'door.setUp' : 'door.join') }}</p>
        <form class="stack" novalidate @submit.prevent="join">
          <TextField id="door-code" v-model="form.code" :label="t('door.code')" />
          <TextField v-if="setUp" id="door-name" v-model="form.name" :label="t('door.name')" />
          <div class="field">
            <label for="door-new">{{ t('door.newPassword') }}</label>
            <el-input id="door-new" v-model="form.password" type="password" show-password autocomplete="new-password" />
            <p class="soft">{{ t('door.passwordHelp', { n: passwordBounds.least }) }}</p>
          </div>
          <p v-if="wrong" class="alarm" role="alert" data-test="door-wrong">{{ wrong }}</p>
          <button type="submit" class="push full" :disabled="busy" data-test="door-join">{{ t('door.set') }}</button>
        </form>
        <button v-if="!setUp" type="button" class="plain" @click="way = 'password'">{{ t('door.withPassword') }}</button>
      </template>
      <template v-else-if="way === 'pin' && bench">
        <h1>{{ t('door.bench', { bench: bench.name }) }}</h1>
        <div class="people">
          <button
            v-for="one in bench.people"
            :key="one.id"
            type="button"
            class="push"
            :aria-pressed="one.id === chosen"
            :class="{ full: one.id === chosen }"
            @click="chosen = one.id"
          >
            {{ one.name }}
          </button>
        </div>
        <PinPad v-if="chosen" :label="t('door.pin', { name: chosenName })" :error="wrong" @pin="pinned" />
        <button type="button" class="plain" @click="way = 'password'">{{ t('door.withPassword') }}</button>
      </template>
      <template v-else>
        <h1>{{ t('door.title') }}</h1>
        <form class="stack" novalidate @submit.prevent="signIn">
          <TextField id="door-who" v-model="form.name" :label="t('door.name')" />
          <div class="field">
            <label for="door-password">{{ t('door.password') }}</label>
            <el-input id="door-password" v-model="form.password" type="password" show-password autocomplete="current-password" />
          </div>
          <button v-if="passkey" type="button" class="push full" :disabled="busy" data-test="use-passkey" @click="send(factor.sign)">
            {{ t('door.usePasskey') }}
          </button>
          <TextField v-if="needsFactor" id="door-factor" v-model="factorCode" inputmode="numeric" :label="t('door.factor')" />
          <p v-if="wrong" class="alarm" role="alert" data-test="door-wrong">{{ wrong }}</p>
          <button type="submit" class="push" :class="{ full: !passkey }" :disabled="busy" data-test="door-sign-in">
            {{ t('door.signIn') }}
          </button>
        </form>
        <div class="inline">
          <button v-if="bench && bench.people.length > 0" type="button" class="plain" @click="way = 'pin'">
            {{ t('door.bench', { bench: bench.name }) }}
          </button>
          <button type="button" class="plain" @click="way = 'code'">{{ t('door.haveCode') }}</button>
        </div>
      </template>
      <div v-if="session.unreached && session.interrupted && session.others.length > 0" class="people" data-test="go-on">
        <p class="soft">{{ t('door.goOn') }}</p>
        <button v-for="one in session.others" :key="one.id" type="button" class="push" @click="session.goOnAs(one.id)">
          {{ t('door.goOnAs', { name: one.name }) }}
        </button>
      </div>
      <p v-if="session.interrupted && session.person" class="soft">{{ t('door.kept', { name: session.person.name }) }}</p>
    </div>
  </section>
</template>

<style scoped>
.door {
  position: fixed;
  inset: 0;
  z-index: 3000;
  display: grid;
  place-items: center;
  padding: 16px;
  overflow: auto;
  background: var(--ground);
}
.box {
  width: min(440px, 100%);
  display: grid;
  gap: 10px;
}
.box h1 {
  margin: 0;
}
.mark {
  display: flex;
  align-items: center;
  gap: 10px;
  margin: 0;
  font-weight: 700;
}
.stack {
  display: grid;
  gap: 10px;
}
.people {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
label {
  display: block;
  font-size: 15px;
  color: var(--ink-soft);
}
.field p {
  margin: 4px 0 0;
}
</style>
