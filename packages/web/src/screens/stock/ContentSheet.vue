<script setup lang="ts">
/** What an image holds: how full it is, what stands where, versions and texts in it. */
import type { Image } from '@veglia/contract';
import { contentRuns, formatBytes, maskSecrets, type Content, type OwnPlace } from '@veglia/core';
import { proxy, wrap } from 'comlink';
import { onUnmounted, ref, shallowRef } from 'vue';
import { useI18n } from 'vue-i18n';
import ChartFrame from '../../charts/ChartFrame.vue';
import { contentOption } from '../../charts/content.ts';
import type { Colours, ChartOption } from '../../charts/option.ts';
import type { ContentLooker } from '../../workers/content.worker.ts';

const props = defineProps<{ image: Image; address: string }>();
const emit = defineEmits<{ goTo: [offset: number]; own: [places: readonly OwnPlace[]] }>();
const { t } = useI18n();
const content = shallowRef<Content>();
const done = ref<number>();
const wrong = ref('');
let worker: Worker | undefined;
onUnmounted(() => worker?.terminate());
const hex = (at: number): string => `0x${at.toString(16)}`;

async function look(): Promise<void> {
  worker?.terminate();
  worker = new Worker(new URL('../../workers/content.worker.ts', import.meta.url), { type: 'module' });
  wrong.value = '';
  done.value = 0;
  try {
    const told = (bytes: number): void => void (done.value = bytes);
    const looked = await wrap<ContentLooker>(worker).look(props.address, props.image.size, proxy(told));
    content.value = looked.content;
    emit('own', looked.own);
  } catch {
    // Whatever went wrong on the way: the image itself is as it was.
    wrong.value = t('stock.away');
  } finally {
    done.value = undefined;
    worker.terminate();
  }
}
const option =
  (found: Content) =>
  (colours: Colours): ChartOption =>
    contentOption(colours, found, {
      title: t('stock.content.title'),
      offset: t('stock.hex.offset'),
      entropy: t('stock.content.entropy'),
      kind: (kind) => t(`stock.content.kind.${kind}`),
      at: hex,
    });
const rowsOf = (found: Content): string[][] =>
  contentRuns(found).map(({ kind, from, to, entropy }) => [
    hex(from),
    formatBytes(to - from),
    t(`stock.content.kind.${kind}`),
    entropy.toFixed(2),
  ]);
</script>

<template>
  <div class="content" data-test="content">
    <button v-if="!content && done === undefined" type="button" class="push" data-test="look-inside" @click="look">
      {{ t('stock.content.look') }}
    </button>
    <p v-if="done !== undefined" role="status">
      <progress :value="done" :max="image.size" />
      {{ t('stock.content.looking', { done: formatBytes(done), of: formatBytes(image.size) }) }}
    </p>
    <p v-if="wrong" class="alarm" role="alert">{{ wrong }}</p>
    <template v-if="content">
      <p v-if="content.bytes < image.size" class="alarm">{{ t('stock.content.upTo', { size: formatBytes(content.bytes) }) }}</p>
      <ChartFrame
        :title="t('stock.content.title')"
        :option="option(content)"
        :head="[t('stock.hex.offset'), t('stock.fact.size'), t('stock.content.what'), t('stock.content.entropy')]"
        :rows="rowsOf(content)"
        :file="`content-${image.sha256.slice(0, 12)}`"
      />
      <h3>{{ t('stock.content.signatures') }}</h3>
      <p v-if="content.signatures.length === 0" class="soft">{{ t('stock.content.noSignatures') }}</p>
      <ul data-test="signatures">
        <li v-for="one in content.signatures" :key="`${one.at} ${one.kind}`">
          <button type="button" class="plain reading" @click="emit('goTo', one.at)">{{ hex(one.at) }}</button>
          {{ t(`stock.content.signature.${one.kind}`) }}
        </li>
      </ul>
      <h3>{{ t('stock.content.versions') }}</h3>
      <p v-if="content.versions.length === 0" class="soft">{{ t('stock.content.noVersions') }}</p>
      <ul data-test="versions">
        <li v-for="one in content.versions" :key="one.at">
          <button type="button" class="plain reading" @click="emit('goTo', one.at)">{{ hex(one.at) }}</button> {{ maskSecrets(one.text) }}
        </li>
      </ul>
      <details>
        <summary>{{ t('stock.content.strings', content.strings.length) }}</summary>
        <ul class="reading">
          <li v-for="one in content.strings" :key="one.at">{{ hex(one.at) }} {{ maskSecrets(one.text) }}</li>
        </ul>
      </details>
    </template>
  </div>
</template>

<style scoped>
.content {
  display: grid;
  gap: 8px;
  justify-items: start;
}
.content > :deep(figure),
.content > details {
  width: 100%;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
  overflow-wrap: anywhere;
}
h3 {
  margin: 0;
  font-size: 16px;
}
summary {
  min-height: 40px;
  line-height: 40px;
  cursor: pointer;
}
</style>
