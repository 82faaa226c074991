<script setup lang="ts">
/** One’s own account: password, PIN, second factor, and whether this browser is a bench. */
import { boundsOf, pinSchema, trustBenchSchema } from '@veglia/contract';
import { toDataURL } from 'qrcode';
import { computed, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached, type Reply } from '../../api.ts';
import TextField from '../../parts/TextField.vue';
import { useSession } from '../../stores/session.ts';
import PasskeySheet from './PasskeySheet.vue';

const { t } = useI18n();
const session = useSession();
const form = reactive({ password: '', pin: '', bench: '', code: '' });
const said = ref<string>();
const wrong = ref<string>();
const secret = ref<{ secret: string; picture: string }>();
const recovery = ref<readonly string[]>([]);
const me = computed(() => session.state?.signedIn ?? undefined);
const bench = computed(() => session.state?.bench ?? undefined);

async function ask<T>(reply: () => Promise<Reply<T>>, done?: string): Promise<T | undefined> {
  said.value = undefined;
  wrong.value = undefined;
  try {
    const answer = await reply();
    if (!answer.ok) {
      wrong.value = answer.problem.code === 'wrong-sign-in' ? t('account.noAccount') : answer.problem.title;
      return undefined;
    }
    said.value = done;
    return answer.value;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    wrong.value = t('common.notReached');
    return undefined;
  }
}
async function changePassword(): Promise<void> {
  if (await ask(() => session.become(api.changePassword(form.password)), t('account.changed'))) form.password = '';
}
async function setPin(pin: string | null): Promise<void> {
  if (pin !== null && !pinSchema.safeParse(pin).success) {
    wrong.value = t('account.pinWrong');
    return;
  }
  if (await ask(() => session.become(api.setPin(pin)), t(pin === null ? 'account.pinGone' : 'account.pinDone'))) form.pin = '';
}
const trust = (): Promise<unknown> => ask(() => session.become(api.trustBench(form.bench)));
async function startFactor(): Promise<void> {
  const begun = await ask(() => api.startFactor());
  if (begun) secret.value = { secret: begun.secret, picture: await toDataURL(begun.address, { margin: 2, width: 220 }) };
}
async function confirmFactor(): Promise<void> {
  const codes = await ask(() => api.confirmFactor(form.code));
  if (!codes) return;
  recovery.value = codes;
  secret.value = undefined;
  form.code = '';
  await session.load();
}
async function passkeysChanged(codes: readonly string[]): Promise<void> {
  recovery.value = codes;
  await session.load();
}
const endFactor = (): Promise<unknown> => ask(() => session.become(api.dropFactor()));
</script>

<template>
  <header class="head">
    <h1>
      {{ t('account.title') }}
      <span v-if="session.person" class="soft">{{ session.person.name }}, {{ t(`account.role.${session.person.role}`) }}</span>
    </h1>
  </header>
  <p v-if="said" role="status" class="good" data-test="account-said">{{ said }}</p>
  <p v-if="wrong" role="alert" class="alarm" data-test="account-wrong">{{ wrong }}</p>
  <div class="columns">
    <form class="sheet stack" novalidate @submit.prevent="setPin(form.pin)">
      <h2>{{ t('account.pin') }}</h2>
      <p class="soft">{{ t('account.pinHelp') }}</p>
      <TextField id="pin" v-model="form.pin" inputmode="numeric" :label="t('account.pinNew')" />
      <span class="inline">
        <button type="submit" class="push full" data-test="set-pin">{{ t('account.pinSet') }}</button>
        <button v-if="me?.hasPin" type="button" class="push" @click="setPin(null)">{{ t('account.pinRemove') }}</button>
      </span>
    </form>
    <form class="sheet stack" novalidate @submit.prevent="trust">
      <h2>{{ t('account.bench') }}</h2>
      <p v-if="bench" data-test="bench-is">{{ t('account.benchIs', { name: bench.name }) }}</p>
      <template v-else>
        <p class="soft">{{ t('account.benchNot') }}</p>
        <TextField id="bench-name" v-model="form.bench" :bounds="boundsOf(trustBenchSchema.shape.name)" :label="t('account.benchName')" />
        <button type="submit" class="push" :disabled="!session.may('trustBench')" data-test="trust-bench">
          {{ t('account.benchTrust') }}
        </button>
      </template>
    </form>
    <section class="sheet stack" data-test="factor">
      <h2>{{ t('account.factor') }}</h2>
      <template v-if="recovery.length > 0">
        <p>
          <strong>{{ t('account.recovery') }}</strong> {{ t('account.recoveryHelp') }}
        </p>
        <ul class="codes reading">
          <li v-for="code in recovery" :key="code">{{ code }}</li>
        </ul>
      </template>
      <template v-else-if="secret">
        <p>{{ t('account.factorScan') }}</p>
        <div class="beside">
          <img :src="secret.picture" width="220" height="220" :alt="t('account.factorStart')" />
          <form class="stack" novalidate @submit.prevent="confirmFactor">
            <p>
              {{ t('account.factorKey') }}: <span class="reading key" data-test="factor-key">{{ secret.secret }}</span>
            </p>
            <TextField id="factor-code" v-model="form.code" inputmode="numeric" :label="t('account.factorCode')" />
            <button type="submit" class="push full" data-test="confirm-factor">{{ t('account.factorConfirm') }}</button>
          </form>
        </div>
      </template>
      <template v-else>
        <p>{{ t(me?.hasFactor ? 'account.factorOn' : 'account.factorOff') }}</p>
        <button v-if="me?.hasFactor" type="button" class="push" @click="endFactor">{{ t('account.factorEnd') }}</button>
        <button v-else type="button" class="push" data-test="start-factor" @click="startFactor">{{ t('account.factorStart') }}</button>
      </template>
    </section>
    <PasskeySheet :ask="ask" :has-factor="me?.hasFactor === true" @changed="passkeysChanged" />
    <form class="sheet stack" novalidate @submit.prevent="changePassword">
      <h2>{{ t('account.password') }}</h2>
      <div>
        <label for="new-password">{{ t('door.newPassword') }}</label>
        <el-input id="new-password" v-model="form.password" type="password" show-password autocomplete="new-password" />
      </div>
      <button type="submit" class="push" data-test="change-password">{{ t('account.change') }}</button>
    </form>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 10px;
  align-items: start;
}
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
.beside {
  display: flex;
  flex-wrap: wrap;
  gap: 14px;
}
.beside > form {
  flex: 1 1 200px;
}
.codes {
  columns: 2;
  margin: 0;
}
.key {
  overflow-wrap: anywhere;
}
label {
  display: block;
  font-size: 15px;
  color: var(--ink-soft);
}
@media (max-width: 800px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
