<script setup lang="ts">
/** What the shop has on the shelf. Memory images so far: dumps of every job, and those that were bought or found. */
import type { Image, ImageErasure } from '@veglia/contract';
import { formatBytes } from '@veglia/core';
import { watchDebounced } from '@vueuse/core';
import { computed, onMounted, ref, shallowRef } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute } from 'vue-router';
import { api, NotReached } from '../../api.ts';
import NotReachedSheet from '../../parts/NotReachedSheet.vue';
import TextField from '../../parts/TextField.vue';
import { useSession } from '../../stores/session.ts';
import ImageSheet from './ImageSheet.vue';

const { t, d } = useI18n();
const session = useSession();
const find = ref('');
const images = shallowRef<readonly Image[]>();
const erased = shallowRef<readonly ImageErasure[]>([]);
const reached = ref(true);
/** An image that another screen points at is picked. */
const asked = useRoute().query.image;
const chosen = ref(typeof asked === 'string' ? asked : '');
const image = computed(() => images.value?.find(({ id }) => id === chosen.value) ?? images.value?.[0]);
const personOf = (id: string): string => session.people.find((one) => one.id === id)?.name ?? '';

async function load(): Promise<void> {
  try {
    const reply = await api.images(find.value.trim() === '' ? undefined : find.value.trim());
    if (reply.ok) images.value = reply.value;
    const gone = await api.imageErasures();
    if (gone.ok) erased.value = gone.value.erased;
    reached.value = true;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    reached.value = false;
  }
}
onMounted(load);
watchDebounced(find, load, { debounce: 250 });
</script>

<template>
  <div class="stock">
    <header>
      <h1>{{ t('stock.title') }}</h1>
      <p class="soft">{{ t('stock.intro') }}</p>
    </header>
    <NotReachedSheet v-if="!reached && images === undefined" @again="load" />
    <div v-else class="columns">
      <section class="sheet list">
        <TextField id="stock-find" v-model="find" :label="t('stock.find')" :placeholder="t('stock.findHint')" />
        <p v-if="!reached" class="alarm" role="alert">{{ t('stock.away') }}</p>
        <p v-if="images?.length === 0" data-test="no-images">{{ t(find.trim() === '' ? 'stock.empty' : 'stock.nothing') }}</p>
        <ul v-else data-test="images">
          <li v-for="one in images ?? []" :key="one.id">
            <button type="button" :aria-pressed="one.id === image?.id" @click="chosen = one.id">
              <strong>{{ one.facts.name }}</strong>
              <span>{{
                [
                  t(`memory.${one.facts.memory}`),
                  one.facts.area === 'whole' ? '' : t(`flash.area.${one.facts.area}`),
                  [one.facts.board, one.facts.revision].filter(Boolean).join(' '),
                  one.facts.panel,
                  formatBytes(one.size),
                ]
                  .filter(Boolean)
                  .join(', ')
              }}</span>
              <span class="soft"
                >{{ t(`flash.source.${one.facts.source}`) }}, {{ d(one.at, 'minute') }}
                <span class="reading">{{ one.sha256.slice(0, 12) }}</span></span
              >
            </button>
          </li>
        </ul>
        <details v-if="erased.length > 0" data-test="erased">
          <summary>{{ t('stock.erase.list', erased.length) }}</summary>
          <ul>
            <li v-for="one in erased" :key="one.id">
              {{ one.name }}, <span class="reading">{{ one.sha256.slice(0, 12) }}</span>. {{ d(one.at, 'minute') }},
              {{ one.by === null ? t('stock.erase.retention') : `${personOf(one.by)}: ${one.reason}` }}
            </li>
          </ul>
        </details>
      </section>
      <ImageSheet
        v-if="image && images"
        :key="image.id"
        :image="image"
        :images="images"
        :person-of="personOf"
        @erased="load"
        @changed="load"
      />
    </div>
  </div>
</template>

<style scoped>
.stock {
  display: grid;
  gap: 10px;
}
.columns {
  display: grid;
  grid-template-columns: minmax(240px, 300px) minmax(0, 1fr);
  gap: 10px;
  align-items: start;
}
.list {
  display: grid;
  gap: 8px;
}
ul {
  display: grid;
  gap: 4px;
  margin: 0;
  padding: 0;
  list-style: none;
}
li button {
  display: grid;
  gap: 2px;
  width: 100%;
  padding: 8px 10px;
  text-align: left;
  color: var(--ink);
  background: none;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  cursor: pointer;
  overflow-wrap: anywhere;
}
li button[aria-pressed='true'] {
  border-color: var(--accent);
  border-left-width: 6px;
  background: var(--accent-wash);
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
