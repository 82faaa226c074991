<script setup lang="ts">
/** Opens a job and shows its screen once it and who writes are there; not reached, not there and not yet there are told. */
import { onMounted, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { NotReached } from '../api.ts';
import { useJob } from '../stores/job.ts';
import { useSession } from '../stores/session.ts';
import NotReachedSheet from './NotReachedSheet.vue';

const props = defineProps<{ id: string }>();
const emit = defineEmits<{ opened: [] }>();
const { t } = useI18n();
const store = useJob();
const session = useSession();

/** Who writes isn’t known, and the server that would tell can’t be reached. */
const nobody = ref(false);
async function people(): Promise<void> {
  nobody.value = false;
  try {
    if (session.people.length === 0) await session.load();
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    nobody.value = true;
  }
}
async function open(): Promise<void> {
  await Promise.all([store.open(props.id), people()]);
  if (store.job) emit('opened');
}
onMounted(open);
watch(() => props.id, open);
</script>

<template>
  <NotReachedSheet v-if="(!store.job && !store.reached) || (nobody && !session.person)" @again="open" />
  <section v-else-if="store.missing" class="sheet">
    <h1>{{ t('core.error.unknown-job') }}</h1>
    <RouterLink to="/">{{ t('app.back') }}</RouterLink>
  </section>
  <p v-else-if="!store.job || !store.fold || !store.compiled || !session.person" class="soft">{{ t('common.loading') }}</p>
  <slot v-else :job="store.job" :fold="store.fold" :compiled="store.compiled" />
</template>
