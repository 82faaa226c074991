<script setup lang="ts">
/** The password once more, before what is not taken back. */
import type { ElInput } from 'element-plus';
import { onMounted, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Session } from '@veglia/contract';
import { api, NotReached, type Reply } from '../../api.ts';
import TextField from '../../parts/TextField.vue';
import { useSession } from '../../stores/session.ts';
import { useFactor } from './factor.ts';

const { t } = useI18n();
const session = useSession();
const form = reactive({ password: '' });
const factor = useFactor(session.state?.signedIn?.hasFactor === true);
const { needed: needsFactor, code, options: passkey } = factor;
const wrong = ref<string>();
const field = ref<InstanceType<typeof ElInput>>();
onMounted(() => field.value?.focus());
const confirm = (): Promise<void> =>
  send(() => api.confirmSelf({ password: form.password, ...(code.value === '' ? {} : { code: code.value }) }));
async function send(reply: () => Promise<Reply<Session> | undefined>): Promise<void> {
  wrong.value = undefined;
  try {
    const came = await reply();
    if (!came) {
      wrong.value = t('door.passkeyNot');
      return;
    }
    const said = await session.become(Promise.resolve(came));
    if (said.ok) session.confirmed(true);
    else if (said.problem.code === 'code-needed') await factor.need();
    else wrong.value = said.problem.code === 'wrong-sign-in' ? t('door.confirmWrong') : said.problem.title;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    wrong.value = t('common.notReached');
  }
}
</script>

<template>
  <section class="over" role="dialog" aria-modal="true" :aria-label="t('door.confirmTitle')" data-test="confirm-self">
    <form class="sheet box" novalidate @submit.prevent="confirm" @keydown.esc="session.confirmed(false)">
      <h1>{{ t('door.confirmTitle') }}</h1>
      <p>{{ t('door.confirm') }}</p>
      <div>
        <label for="confirm-password">{{ t('door.password') }}</label>
        <el-input id="confirm-password" ref="field" v-model="form.password" type="password" show-password autocomplete="current-password" />
      </div>
      <button v-if="passkey" type="button" class="push full" data-test="use-passkey" @click="send(factor.sign)">
        {{ t('door.usePasskey') }}
      </button>
      <TextField v-if="needsFactor" id="confirm-factor" v-model="code" inputmode="numeric" :label="t('door.factor')" />
      <p v-if="wrong" class="alarm" role="alert">{{ wrong }}</p>
      <div class="inline">
        <button type="submit" class="push" :class="{ full: !passkey }">{{ t('door.confirmIt') }}</button>
        <button type="button" class="push" @click="session.confirmed(false)">{{ t('door.cancel') }}</button>
      </div>
    </form>
  </section>
</template>

<style scoped>
.over {
  position: fixed;
  inset: 0;
  z-index: 3000;
  display: grid;
  place-items: center;
  padding: 16px;
  background: color-mix(in srgb, var(--ground) 80%, transparent);
}
.box {
  width: min(440px, 100%);
  display: grid;
  gap: 10px;
}
.box h1,
.box p {
  margin: 0;
}
label {
  display: block;
  font-size: 15px;
  color: var(--ink-soft);
}
</style>
