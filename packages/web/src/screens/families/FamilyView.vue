<script setup lang="ts">
/** One family: which sets, healthy behaviour, traits, rails, service. What is changed is kept here until it is saved as another version. */
import { problemSentence, words, type FamilyChanges } from '@veglia/contract';
import { familyProblems, type Problem } from '@veglia/core';
import { computed, onMounted, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute } from 'vue-router';
import { api, NotReached } from '../../api.ts';
import NotReachedSheet from '../../parts/NotReachedSheet.vue';
import TextField from '../../parts/TextField.vue';
import TicksField from '../../parts/TicksField.vue';
import { saveBlob } from '../../saveBlob.ts';
import { useBoards } from '../../stores/boards.ts';
import { draftsOf, dropDraft, keepDraft } from '../../stores/drafts.ts';
import { textOf, usePacks } from '../../stores/packs.ts';
import { useSession } from '../../stores/session.ts';
import { writeBoardFile } from '../boards/boardFile.ts';
import RailRows from './RailRows.vue';
import { draftName, familyOf, knownTraits, typedFamily, type TypedFamily } from './typedFamily.ts';

const props = defineProps<{ id: string }>();
const { t, d } = useI18n();
const route = useRoute();
const packs = usePacks();
const session = useSession();
const boards = useBoards();
const typed = ref<TypedFamily>();
const reached = ref(true);
const restored = ref('');
const said = ref('');
const refusal = ref('');
const reason = ref('');
const problems = ref<readonly Problem[]>([]);
const changes = ref<FamilyChanges['changes']>([]);

const stored = computed(() => packs.current?.families.get(props.id));
/** As the pack has it, in the form’s words; undefined for one that was never saved. */
const base = computed(() => (stored.value ? typedFamily(stored.value) : undefined));
const dirty = computed(() => typed.value !== undefined && JSON.stringify(typed.value) !== JSON.stringify(base.value));

async function load(): Promise<void> {
  try {
    await packs.loadCurrent();
    const reply = await api.familyChanges();
    if (reply.ok) changes.value = reply.value.filter(({ family }) => family === props.id);
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
  }
  void boards.load();
  reached.value = packs.current !== undefined;
  restored.value = '';
  const draft = (await draftsOf(draftName(props.id))).find(({ name }) => name === draftName(props.id));
  const kept = (draft?.content as { typed?: TypedFamily } | undefined)?.typed;
  // A copy: what is typed must not change what it is held against.
  typed.value = kept ?? (stored.value && typedFamily(stored.value));
  if (kept && draft && base.value) restored.value = t('families.restored', { when: d(new Date(draft.at), 'time') });
  said.value = typeof route.query.said === 'string' ? route.query.said : '';
}
onMounted(load);
watch(() => props.id, load);
watch(
  typed,
  (now) => {
    if (now && dirty.value) void keepDraft(draftName(props.id), { typed: now });
  },
  { deep: true },
);

const layouts = computed(() => (packs.current?.pack.layouts ?? []).map(({ id, name }) => ({ value: id, label: textOf(name) })));
const traits = computed(() => knownTraits(packs.current?.pack.families ?? []));
/** Where a meter goes on any of its layouts. */
const points = computed(() => {
  const own = (packs.current?.pack.layouts ?? []).filter(({ id }) => typed.value?.layouts.includes(id));
  return new Map(own.flatMap((layout) => Object.entries(layout.points).map(([id, point]) => [id, textOf(point.name)] as const)));
});
const own = computed(() => (boards.list ?? []).filter(({ families }) => families.includes(props.id)));
const document_ = (): object => (typed.value ? familyOf(typed.value, stored.value?.blink ?? []) : {});

async function save(): Promise<void> {
  const by = session.person?.id;
  if (!packs.current || !typed.value || by === undefined) return;
  said.value = '';
  refusal.value = '';
  const family = document_();
  problems.value = familyProblems(family, packs.current.pack).problems;
  if (problems.value.length > 0) return;
  const why = reason.value.trim() || (stored.value ? t('families.save') : t('families.add'));
  try {
    const reply = await api.changeFamily({ by, basedOn: packs.current.hash, reason: why, family });
    if (!reply.ok) {
      const moved = reply.problem.code === 'pack-version-conflict';
      refusal.value = moved
        ? t('families.conflict')
        : [reply.problem.title, ...(reply.problem.problems ?? []).map((one) => one.sentence)].join(' ');
      if (moved) await packs.loadCurrent();
      return;
    }
    await dropDraft(draftName(props.id));
    reason.value = '';
    await load();
    said.value = t('families.saved');
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    refusal.value = `${t('common.notReached')}. ${t('families.unsaved')}`;
  }
}
async function discard(): Promise<void> {
  await dropDraft(draftName(props.id));
  problems.value = [];
  refusal.value = '';
  await load();
}
async function exportFile(): Promise<void> {
  refusal.value = '';
  try {
    const documents = (await Promise.all(own.value.map(({ id }) => boards.read(id)))).flatMap((one) => (one ? [one.board] : []));
    const file = {
      format: 'veglia-family',
      version: 1,
      family: document_(),
      ...(documents.length > 0 ? { boards: await writeBoardFile(documents) } : {}),
    };
    saveBlob(new Blob([`${JSON.stringify(file, null, 2)}\n`], { type: 'application/json' }), `family-${props.id}.json`);
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    refusal.value = t('boards.notExported');
  }
}
</script>

<template>
  <NotReachedSheet v-if="!reached" @again="load" />
  <form v-else-if="typed && packs.current" class="family" data-test="family" novalidate @submit.prevent="save">
    <div class="head">
      <h1>{{ typed.name }}</h1>
      <p v-if="typed.from" class="soft">{{ t('families.from', { name: textOf(packs.current.families.get(typed.from)?.name) }) }}</p>
      <span class="spring" />
      <RouterLink v-if="stored" :to="{ path: '/blink', query: { family: id } }">{{ t('families.blink') }}</RouterLink>
      <button type="button" class="plain" data-test="export-family" @click="exportFile">{{ t('families.export') }}</button>
    </div>
    <p v-if="restored" class="soft" role="status">{{ restored }}</p>
    <div class="pair">
      <div class="stack">
        <fieldset class="sheet fields">
          <legend>{{ t('families.identity') }}</legend>
          <TextField id="f-name" v-model="typed.name" :label="t('families.name')" />
          <TextField id="f-maker" v-model="typed.maker" :label="t('families.maker')" />
          <TextField id="f-models" v-model="typed.models" class="wide" :label="t('families.models')" />
          <TextField id="f-versions" v-model="typed.versions" :label="t('families.versions')" :placeholder="t('families.allVersions')" />
          <TextField id="f-years" v-model="typed.years" class="short" :label="t('families.years')" :placeholder="t('families.yearsHint')" />
          <TextField
            id="f-except"
            v-model="typed.except"
            class="short"
            :label="t('families.except')"
            :placeholder="t('families.exceptHint')"
          />
          <TicksField v-model="typed.layouts" :label="t('families.layouts')" :options="layouts" />
        </fieldset>
        <fieldset class="sheet fields">
          <legend>{{ t('families.healthy') }}</legend>
          <TextField id="f-off" v-model="typed.off" :label="t('families.off')" />
          <TextField id="f-on" v-model="typed.on" :label="t('families.on')" />
          <TextField id="f-starting" v-model="typed.starting" class="wide" :label="t('families.starting')" />
          <TextField id="f-seconds" v-model="typed.seconds" class="short" :label="t('families.seconds')" inputmode="decimal" />
          <TextField id="f-longest" v-model="typed.longest" class="short" :label="t('families.longest')" inputmode="decimal" />
          <TextField id="f-clicks" v-model="typed.clicks" class="short" :label="t('families.clicks')" inputmode="numeric" />
          <label class="field short">
            <span>{{ t('families.chime') }}</span>
            <select v-model="typed.chime" data-test="chime">
              <option value="">{{ t('families.unknown') }}</option>
              <option value="yes">{{ t('families.yes') }}</option>
              <option value="no">{{ t('families.no') }}</option>
            </select>
          </label>
        </fieldset>
        <fieldset class="sheet">
          <legend>{{ t('families.rails') }}</legend>
          <RailRows v-model="typed.rails" :points="points" />
          <p class="soft">{{ t('families.railsHelp') }}</p>
        </fieldset>
      </div>
      <div class="stack">
        <fieldset class="sheet traits">
          <legend>{{ t('families.traits') }}</legend>
          <label v-for="one in traits" :key="one">
            <span>{{ t(`families.trait.${one.replaceAll('.', '-')}`) }}</span>
            <select v-model="typed.traits[one]" :data-trait="one">
              <option :value="undefined">{{ t('families.unknown') }}</option>
              <option value="yes">{{ t('families.yes') }}</option>
              <option value="no">{{ t('families.no') }}</option>
            </select>
          </label>
        </fieldset>
        <section class="sheet stack">
          <TextField id="f-service" v-model="typed.service" :label="t('families.service')" :rows="2" />
          <TextField id="f-remotes" v-model="typed.remotes" :label="t('families.remotes')" :rows="2" />
          <TextField id="f-jig" v-model="typed.jig" :label="t('families.jig')" />
          <label>
            <span>{{ t('families.ribbons') }}</span>
            <select v-model="typed.ribbons" data-test="ribbons">
              <option value="">{{ t('families.ribbonsUnknown') }}</option>
              <option value="each">{{ t('families.ribbonsEach') }}</option>
              <option value="link">{{ t('families.ribbonsLink') }}</option>
            </select>
          </label>
          <TextField id="f-notes" v-model="typed.notes" :label="t('families.notes')" :rows="2" />
          <TextField id="f-source" v-model="typed.source" :label="t('families.source')" />
          <el-checkbox v-model="typed.retired" data-test="retired">{{ t('families.retired') }}</el-checkbox>
        </section>
        <section v-if="stored" class="sheet">
          <h2>{{ t('families.boards') }}</h2>
          <p v-if="own.length === 0" class="soft">{{ t('families.noBoards') }}</p>
          <p v-for="one in own" :key="one.id">
            <RouterLink :to="`/boards/${one.id}`">{{ one.number }}</RouterLink>
          </p>
          <h2>{{ t('families.history') }}</h2>
          <ul data-test="family-history">
            <li v-for="one in changes" :key="one.number">
              {{
                t('families.version', {
                  who: session.people.find((person) => person.id === one.by)?.name ?? '?',
                  when: d(new Date(one.at), 'minute'),
                  reason: one.reason,
                })
              }}
            </li>
          </ul>
          <p v-if="changes.length === 0" class="soft">{{ t('families.shipped') }}</p>
        </section>
      </div>
    </div>
    <p v-if="said && !dirty" role="status" data-test="family-said">{{ said }}</p>
    <div v-if="dirty || problems.length > 0 || refusal" class="sheet savebar" data-test="savebar">
      <p v-if="said" role="status">{{ said }}</p>
      <div v-if="problems.length > 0" class="alarm" role="alert" data-test="family-problems">
        <p>{{ t('families.problems', problems.length) }}</p>
        <ul>
          <li v-for="(one, index) in problems" :key="index">{{ problemSentence(one, words.en) }}</li>
        </ul>
      </div>
      <p v-if="refusal" class="alarm" role="alert">{{ refusal }}</p>
      <div class="saveline">
        <TextField id="f-reason" v-model="reason" :label="t('families.reason')" />
        <button type="submit" class="push full" data-test="save-family">{{ t('families.save') }}</button>
        <button type="button" class="plain" @click="discard">{{ t('families.discard') }}</button>
      </div>
    </div>
  </form>
  <p v-else-if="packs.current" class="soft">{{ t('families.noMatch') }}</p>
  <p v-else class="soft">{{ t('common.loading') }}</p>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 14px;
  margin-bottom: 8px;
}
.spring {
  flex: 1;
}
.pair {
  display: grid;
  grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}
.stack {
  display: grid;
  gap: 12px;
  min-width: 0;
}
/* A fieldset is as wide as its table otherwise. */
fieldset {
  min-width: 0;
}
.traits {
  display: grid;
  gap: 2px;
}
.traits label {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
}
select {
  min-height: 40px;
  padding: 2px 8px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: transparent;
}
label.field > span {
  display: block;
}
label.field select {
  width: 100%;
}
/* Over the lower edge, as with boards. */
.savebar {
  position: sticky;
  bottom: 8px;
  z-index: 5;
  margin-top: 12px;
  border: 2px solid var(--accent);
  box-shadow: 0 -4px 18px rgb(0 0 0 / 20%);
}
.saveline {
  display: flex;
  flex-wrap: wrap;
  align-items: flex-end;
  gap: 6px 12px;
}
.saveline > :first-child {
  flex: 1 1 260px;
}
@media (max-width: 900px) {
  .pair {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
