<script setup lang="ts">
/** Photos of a job, to be a picture of a board: copied, so that erasing a job's photos takes none from the board. */
import { liveEntries, readBody, type Entry } from '@veglia/core';
import { ref, shallowRef } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import { addPhoto, photoBytes, photoUrl } from '../../stores/photos.ts';
import { parseBetween } from '../../numbers.ts';

const emit = defineEmits<{ added: [photo: string] }>();
const { t } = useI18n();
const open = ref(false);
const number = ref('');
const said = ref('');
const photos = shallowRef<readonly { readonly id: string; readonly url: string; readonly alt: string }[]>([]);
/** The database's own largest. */
const mostNumber = 2_000_000_000;

async function find(): Promise<void> {
  photos.value = [];
  said.value = '';
  const wanted = parseBetween(number.value, { least: 1, most: mostNumber }, true);
  if (wanted === undefined) {
    said.value = t('boards.jobPhotos.noNumber', { value: number.value });
    return;
  }
  try {
    const found = await api.jobsNow({ find: String(wanted), limit: 20 });
    const card = found.ok ? found.value.jobs.find((one) => one.number === wanted) : undefined;
    const job = card ? await api.job(card.jobId) : undefined;
    if (!job?.ok) {
      said.value = t('boards.jobPhotos.noJob', { n: wanted });
      return;
    }
    const entries = job.value.entries.flatMap((entry): Entry[] => {
      const read = readBody(entry.body, 'entry');
      return 'body' in read ? [{ ...entry, body: read.body }] : [];
    });
    photos.value = await Promise.all(
      liveEntries(entries).flatMap(({ body }) => {
        const photo = body.kind === 'photo.added' || body.kind === 'teardown.taken' ? body.photo : undefined;
        const alt = body.kind === 'photo.added' ? t(`photoOf.${body.of ?? 'other'}`) : t('photoOf.inside');
        return photo === undefined ? [] : [photoUrl(photo).then((url) => ({ id: photo, url, alt }))];
      }),
    );
    if (photos.value.length === 0) said.value = t('boards.jobPhotos.none', { n: wanted });
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    said.value = t('common.notReached');
  }
}
async function take(id: string, name: string): Promise<void> {
  try {
    const added = await addPhoto(await photoBytes(id), name);
    if ('refused' in added) said.value = added.refused === 'said' ? added.why : t('counter.photo.tooLarge');
    else {
      emit('added', added.id);
      open.value = false;
    }
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    said.value = t('boards.jobPhotos.gone');
  }
}
</script>

<template>
  <span>
    <button type="button" class="push" :aria-expanded="open" data-test="job-photos" @click="open = !open">
      {{ t('boards.jobPhotos.open') }}
    </button>
    <form v-if="open" class="find" @submit.prevent="find">
      <input
        v-model="number"
        type="text"
        inputmode="numeric"
        autocomplete="off"
        :aria-label="t('boards.jobPhotos.number')"
        :placeholder="t('boards.jobPhotos.number')"
        data-test="job-photos-number"
      />
      <button type="submit" class="push">{{ t('boards.jobPhotos.show') }}</button>
      <p v-if="said" role="status">{{ said }}</p>
      <div class="photos">
        <button v-for="one in photos" :key="one.id" type="button" class="plain" data-test="job-photo" @click="take(one.id, one.alt)">
          <img :src="one.url" :alt="one.alt" />
        </button>
      </div>
    </form>
  </span>
</template>

<style scoped>
.find {
  margin-top: 8px;
}
input {
  width: 140px;
  min-height: 44px;
  margin-right: 8px;
  padding: 4px 10px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: transparent;
}
.photos {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 6px;
}
img {
  max-width: 160px;
  max-height: 110px;
  border-radius: var(--radius);
}
</style>
