<script setup lang="ts">
/** Opens a job and shows its screen once it is there; not reached, not there and not yet there are told. */
import { onMounted, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { useJob } from '../stores/job.ts';
import NotReachedSheet from './NotReachedSheet.vue';

const props = defineProps<{ id: string }>();
const emit = defineEmits<{ opened: [] }>();
const { t } = useI18n();
const store = useJob();

async function open(): Promise<void> {
  await store.open(props.id);
  if (store.job) emit('opened');
}
onMounted(open);
watch(() => props.id, open);
</script>

<template>
  <NotReachedSheet v-if="!store.job && !store.reached" @again="open" />
  <section v-else-if="store.missing" class="sheet">
    <h1>{{ t('core.error.unknown-job') }}</h1>
    <RouterLink to="/">{{ t('app.back') }}</RouterLink>
  </section>
  <p v-else-if="!store.job || !store.fold || !store.compiled" class="soft">{{ t('common.loading') }}</p>
  <slot v-else :job="store.job" :fold="store.fold" :compiled="store.compiled" />
</template>
