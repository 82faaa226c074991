<script setup lang="ts">
/** Offered on a server with demo data only: a practice job is a job, and a shop’s own statistics are not for practising. */
import { computed, onMounted, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRouter } from 'vue-router';
import { v7 as uuidv7 } from 'uuid';
import { api, NotReached } from '../../api.ts';
import { useIntakes } from '../../stores/intakes.ts';
import { usePacks } from '../../stores/packs.ts';
import { lookedRound, practiceJob, practiceOver } from '../../stores/practice.ts';
import { useSession } from '../../stores/session.ts';
import { canPractise, practiceRequest } from './set.ts';

const props = defineProps<{ /** Asked for, and not offered. */ always?: boolean }>();
const { t } = useI18n();
const router = useRouter();
const packs = usePacks();
const session = useSession();
const intakes = useIntakes();
const demo = ref(false);
const starting = ref(false);
const failed = ref('');

onMounted(async () => {
  try {
    const reply = await api.health();
    demo.value = reply.ok && reply.value.demo;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
  }
});
const offered = computed(
  () => demo.value && packs.current !== undefined && canPractise(packs.current) && (props.always || practiceOver.value === 'no'),
);

async function start(): Promise<void> {
  const by = session.person?.id;
  if (!packs.current || by === undefined || starting.value) return;
  starting.value = true;
  failed.value = '';
  const request = practiceRequest(packs.current, by, new Date().toISOString(), uuidv7, t('practice.shelf'));
  const { job, refused } = await intakes.takeIn(request);
  starting.value = false;
  if (!job) {
    failed.value = refused ?? t('common.notReached');
    return;
  }
  practiceJob.value = job.id;
  practiceOver.value = 'yes';
  lookedRound.value = 'no';
  await router.push(`/jobs/${job.id}`);
}
</script>

<template>
  <section v-if="offered" class="sheet offer" data-test="practice-offer">
    <div>
      <h2>{{ t(always ? 'practice.again' : 'practice.title') }}</h2>
      <p>{{ t('practice.offer') }}</p>
      <p v-if="failed" class="alarm" role="alert">{{ failed }}</p>
    </div>
    <button type="button" class="push full" :disabled="starting" data-test="practice-start" @click="start">
      {{ t('practice.start') }}
    </button>
    <button v-if="!always" type="button" class="plain" data-test="practice-decline" @click="practiceOver = 'yes'">
      {{ t('practice.decline') }}
    </button>
  </section>
</template>

<style scoped>
.offer {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
  margin-bottom: 12px;
  border-left: 6px solid var(--accent);
}
.offer > div {
  flex: 1 1 320px;
}
h2 {
  color: var(--ink);
}
</style>
