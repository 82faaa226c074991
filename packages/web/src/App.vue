<script setup lang="ts">
import { useIdle } from '@vueuse/core';
import { computed, onMounted, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import NeedsYou, { type Refused } from './parts/NeedsYou.vue';
import NewVersion from './parts/NewVersion.vue';
import RingBar from './parts/RingBar.vue';
import { useIntakes } from './stores/intakes.ts';
import { startLive } from './stores/live.ts';
import { usePacks } from './stores/packs.ts';
import { useShelf } from './stores/shelf.ts';
import { outbox, startOutbox } from './stores/outbox.ts';
import { letPhotoGo, refusedPhotos, startPhotos, tryPhotoAgain } from './stores/photos.ts';
import { useSession } from './stores/session.ts';
import ConfirmSheet from './screens/door/ConfirmSheet.vue';
import SignInSheet from './screens/door/SignInSheet.vue';

const { t } = useI18n();
const session = useSession();
const intakes = useIntakes();
const refused = computed(() => intakes.waiting.filter((one) => one.refused !== undefined));
const needsYou = computed((): Refused[] => [
  ...refused.value.map(({ id, request, refused: why = '' }) => ({
    key: id,
    title: t('app.intakeRefused', { maker: request.plate.maker }),
    why,
    content: request,
  })),
  ...refusedPhotos.value.map(({ id, name, blob, refused: why = '' }) => ({
    key: id,
    title: t('app.photoRefused', { name }),
    why,
    content: blob,
  })),
]);
async function sendAgain(key: string): Promise<void> {
  const intake = refused.value.find(({ id }) => id === key);
  const photo = refusedPhotos.value.find(({ id }) => id === key);
  if (intake) await intakes.tryAgain(intake);
  if (photo) await tryPhotoAgain(photo);
}
async function letGo(key: string): Promise<void> {
  if (refused.value.some(({ id }) => id === key)) await intakes.drop(key);
  else await letPhotoGo(key);
}
const shelf = useShelf();
const packs = usePacks();
onMounted(() => void session.load());
/** Nobody at a bench for this long: whoever comes next shows who they are. As long as the server lets a PIN stand (value of ours). */
const { idle } = useIdle(60 * 60_000);
watch(idle, (now) => {
  if (now && session.state?.signedIn?.by === 'pin') void session.lock().catch(() => undefined);
});
let started = false;
// Nothing is asked for, and nothing sent, before somebody is there.
watch(
  () => session.person?.id,
  async (id) => {
    if (id === undefined) return;
    if (!started) {
      started = true;
      startLive();
      // Nearly every screen needs both: they are on their way while the screen's own code comes.
      void shelf.load();
      void packs.loadCurrent().catch(() => undefined);
      await intakes.load();
      await startPhotos();
    }
    startOutbox();
    void intakes.flush();
  },
  { immediate: true },
);
// The same person signed in again: what waited for that goes at once, and not at the next occasion.
watch(
  () => session.state?.signedIn?.id,
  (id) => {
    if (id === undefined || !started) return;
    void outbox.flush();
    void intakes.flush();
  },
);
</script>

<template>
  <SignInSheet v-if="session.interrupted || (!session.person && (session.state || session.away))" />
  <ConfirmSheet v-else-if="session.confirming" />
  <div v-if="session.person" class="frame" :inert="session.interrupted || session.confirming !== undefined">
    <header class="top">
      <nav>
        <RouterLink class="mark" to="/"><img src="/lamp.svg" alt="" width="28" height="28" />{{ t('app.name') }}</RouterLink>
        <RouterLink to="/">{{ t('app.shelves') }}</RouterLink>
        <RouterLink to="/jobs/new">{{ t('app.takeIn') }}</RouterLink>
        <RouterLink to="/blink">{{ t('app.blink') }}</RouterLink>
        <RouterLink v-if="session.may('readMeter')" to="/instruments">{{ t('app.instruments') }}</RouterLink>
        <RouterLink to="/boards">{{ t('app.boards') }}</RouterLink>
        <RouterLink to="/families">{{ t('app.families') }}</RouterLink>
        <RouterLink to="/parts">{{ t('app.parts') }}</RouterLink>
        <RouterLink v-if="session.may('listImages')" to="/stock">{{ t('app.stock') }}</RouterLink>
        <RouterLink to="/experience">{{ t('app.experience') }}</RouterLink>
        <RouterLink to="/settings">{{ t('app.settings') }}</RouterLink>
      </nav>
      <div class="right">
        <label v-if="session.state?.demo !== false && session.others.length > 0">
          <span class="soft">{{ t('app.who') }}</span>
          <select
            :aria-label="t('app.who')"
            :value="session.person.id"
            @change="session.choose(($event.target as HTMLSelectElement).value)"
          >
            <option v-for="person in session.others" :key="person.id" :value="person.id">{{ person.name }}</option>
          </select>
        </label>
        <template v-else>
          <RouterLink to="/account" :title="t('door.account')" data-test="me">{{ session.person.name }}</RouterLink>
          <button type="button" class="plain" data-test="lock" @click="session.lock()">{{ t('door.lock') }}</button>
        </template>
        <button type="button" class="plain" @click="session.dark = session.dark === 'yes' ? 'no' : 'yes'">
          {{ session.dark === 'yes' ? t('app.light') : t('app.dark') }}
        </button>
      </div>
    </header>
    <div v-if="intakes.waiting.length > 0" class="waits" role="status" data-test="intakes-wait">
      {{ t('app.intakesWait', intakes.waiting.length) }}
      <button type="button" class="plain" @click="intakes.flush()">{{ t('bench.sendNow') }}</button>
    </div>
    <NeedsYou :items="needsYou" @again="sendAgain" @discard="letGo" />
    <NewVersion />
    <RingBar />
    <main><RouterView /></main>
  </div>
</template>

<style scoped>
/* A long name must not push the header into a second line; it is whole in the open list. */
.right select {
  width: 126px;
  text-overflow: ellipsis;
}
/* No box of its own: the page’s own rules of height hold for what is in it. */
.frame {
  display: contents;
}
.top {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 16px;
  padding: 1px 20px;
  border-bottom: 1px solid var(--line);
  background: var(--surface);
}
nav,
.right {
  display: flex;
  align-items: center;
  gap: 8px;
}
nav {
  flex-wrap: wrap;
  gap: 2px;
}
.top {
  flex-wrap: wrap;
}
/* A small screen: still one row, or the Bench loses as much below. */
@media (max-width: 1199.98px) {
  nav {
    gap: 0;
  }
  nav a:not(.mark) {
    padding: 0 6px;
  }
  .right .soft {
    display: none;
  }
  .right select {
    margin: 0;
  }
}
@media (max-width: 1099.98px) {
  .top {
    gap: 8px;
    padding: 1px 12px;
  }
  nav a:not(.mark) {
    padding: 0 5px;
    font-size: 15px;
  }
  .right select {
    width: 104px;
  }
}
/* A phone: one row that can be pushed aside, so that the screen's own matter is on it. */
@media (max-width: 699.98px) {
  .top,
  nav {
    flex-wrap: nowrap;
  }
  nav {
    min-width: 0;
    overflow-x: auto;
  }
  .right .soft {
    display: none;
  }
  .right select {
    width: 92px;
    margin: 0;
  }
}
nav a {
  white-space: nowrap;
  min-height: 44px;
  display: inline-flex;
  align-items: center;
  gap: 10px;
  padding: 0 9px;
  text-decoration: none;
  font-weight: 600;
  color: var(--ink);
  border-bottom: 3px solid transparent;
}
nav a.router-link-exact-active:not(.mark) {
  border-bottom-color: var(--accent);
}
.mark {
  font-size: 20px;
  padding-left: 0;
}
select {
  min-height: 40px;
  margin-left: 8px;
  padding: 0 8px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--surface);
}
.waits {
  padding: 4px 20px;
  background: var(--alarm-wash);
}
main {
  padding: 14px 20px 24px;
}
@media (max-width: 600px) {
  .top {
    padding: 2px 10px;
    gap: 0 10px;
  }
  nav {
    gap: 0;
  }
  nav a {
    padding: 0 7px;
  }
  main {
    padding: 10px;
  }
}
</style>
