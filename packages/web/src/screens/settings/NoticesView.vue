<script setup lang="ts">
/** Whose work is built into the app, under which licence, word for word. The list is written when the app is built. */
import { onMounted, ref, shallowRef } from 'vue';
import { useI18n } from 'vue-i18n';
import NotReachedSheet from '../../parts/NotReachedSheet.vue';

interface Notice {
  readonly name: string;
  readonly version: string;
  readonly identifier: string | null;
  readonly text?: string;
}
const { t } = useI18n();
const notices = shallowRef<readonly Notice[]>();
const reached = ref(true);

async function load(): Promise<void> {
  try {
    const reply = await fetch('/licences.json');
    reached.value = reply.ok && (reply.headers.get('content-type') ?? '').includes('json');
    if (reached.value) notices.value = (await reply.json()) as Notice[];
  } catch {
    reached.value = false;
  }
}
onMounted(load);
</script>

<template>
  <h1>{{ t('notices.title') }}</h1>
  <NotReachedSheet v-if="!reached" @again="load" />
  <p v-else-if="!notices" class="soft">{{ t('common.loading') }}</p>
  <section v-else class="sheet notices">
    <p class="soft">{{ t('notices.help', { n: notices.length }) }}</p>
    <details v-for="one in notices" :key="`${one.name} ${one.version}`" data-test="notice" :data-package="one.name">
      <summary>
        <strong>{{ one.name }}</strong> <span class="figure">{{ one.version }}</span> {{ one.identifier ?? t('notices.unnamed') }}
      </summary>
      <pre>{{ one.text ?? t('notices.noText') }}</pre>
    </details>
  </section>
</template>

<style scoped>
.notices {
  margin-top: 10px;
}
summary {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  min-height: 40px;
  border-top: 1px solid var(--line);
  cursor: pointer;
}
.figure {
  font-weight: 400;
}
summary::before {
  content: '▸';
  color: var(--accent);
}
details[open] > summary::before {
  content: '▾';
}
pre {
  margin: 0 0 10px;
  padding: 10px;
  background: var(--sunk);
  border-radius: var(--radius);
  font-size: 14px;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
</style>
