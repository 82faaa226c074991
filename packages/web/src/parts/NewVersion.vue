<script setup lang="ts">
/** A newer version of the app is here: it is loaded when somebody says so, and not while something is unsent. */
import { useIntervalFn } from '@vueuse/core';
import { useRegisterSW } from 'virtual:pwa-register/vue';
import { ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { unsent } from '../stores/local.ts';

/** How often the server is asked for a newer one, milliseconds: a bench's page stays open for weeks. */
const everyMs = 30 * 60_000;
const { t } = useI18n();
const { needRefresh, updateServiceWorker } = useRegisterSW({
  immediate: true,
  onRegisteredSW(_, registration) {
    useIntervalFn(() => {
      if (navigator.onLine) registration?.update().catch(() => undefined);
    }, everyMs);
  },
});
const wanted = ref(false);
const left = ref(0);
async function reloadWhenSent(): Promise<void> {
  left.value = await unsent();
  if (left.value > 0) return;
  asking.pause();
  // Asked for here: the plugin does not reload a page that had no worker when it was opened.
  navigator.serviceWorker.addEventListener('controllerchange', () => location.reload(), { once: true });
  await updateServiceWorker();
}
const asking = useIntervalFn(() => void reloadWhenSent(), 1000, { immediate: false });
function want(): void {
  wanted.value = true;
  void reloadWhenSent();
  asking.resume();
}
</script>

<template>
  <div v-if="needRefresh" class="newer" role="status" data-test="newer-app">
    <template v-if="wanted && left > 0">{{ t('app.newerWaits', left) }}</template>
    <template v-else>
      {{ t('app.newer') }}
      <button type="button" class="plain" data-test="reload-app" @click="want">{{ t('app.reload') }}</button>
    </template>
  </div>
</template>

<style scoped>
.newer {
  padding: 4px 20px;
  background: var(--accent-wash);
}
</style>
