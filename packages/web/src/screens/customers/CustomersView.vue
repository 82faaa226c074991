<script setup lang="ts">
/** What is held about a customer, to hand over or to erase. For an owner. */
import type { Erased, KnownCustomer } from '@veglia/contract';
import { computed, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { api } from '../../api.ts';
import { useAsked } from '../../asked.ts';
import TextField from '../../parts/TextField.vue';
import { saveBlob } from '../../saveBlob.ts';

const { t, d } = useI18n();
const asked = reactive({ name: '', contact: '' });
const found = ref<readonly KnownCustomer[]>();
const { wrong, busy, ask } = useAsked();
const about = ref<KnownCustomer>();
const photos = ref(true);
const erased = ref<Erased>();

async function search(): Promise<void> {
  about.value = undefined;
  erased.value = undefined;
  found.value = await ask(api.searchCustomers(asked.name, asked.contact));
}
async function save({ id, name }: KnownCustomer): Promise<void> {
  const file = await ask(api.customerData(id));
  if (file) saveBlob(file, `${name.replace(/[^\p{L}\p{N}]+/gu, '-')}.zip`);
}
function consider(customer: KnownCustomer): void {
  about.value = customer;
  erased.value = undefined;
  photos.value = true;
}
async function erase({ id }: KnownCustomer): Promise<void> {
  const done = await ask(api.eraseCustomer(id, { photos: photos.value }));
  if (!done) return;
  erased.value = done;
  about.value = undefined;
  found.value = undefined;
}
const counted = computed(() =>
  erased.value
    ? ([
        ['doneJobs', erased.value.jobs],
        ['doneTexts', erased.value.texts],
        ['doneSerials', erased.value.serials],
        ['donePhotos', erased.value.photos],
        ['doneImages', erased.value.images],
      ] as const)
    : [],
);
</script>

<template>
  <header class="head">
    <h1>{{ t('customers.title') }}</h1>
    <RouterLink to="/settings" class="push">{{ t('customers.toSettings') }}</RouterLink>
  </header>
  <form class="sheet fields quarters" novalidate data-test="find-customer" @submit.prevent="search">
    <p class="wide soft">{{ t('customers.help') }}</p>
    <TextField id="customer-name" v-model="asked.name" :label="t('customers.name')" />
    <TextField id="customer-contact" v-model="asked.contact" :label="t('customers.contact')" />
    <button type="submit" class="push full search">{{ t('customers.search') }}</button>
  </form>
  <p v-if="wrong" role="alert" class="alarm" data-test="customers-wrong">{{ wrong }}</p>
  <section v-if="found" class="sheet" data-test="customers">
    <p v-if="found.length === 0" class="soft">{{ t('customers.none') }}</p>
    <ul v-else class="plainlist">
      <li v-for="one in found" :key="one.id" class="line">
        <strong class="name">{{ one.name }}</strong>
        <span class="soft">{{ one.contact }}</span>
        <span class="soft">{{ t('customers.jobs', one.jobs) }}</span>
        <span class="inline">
          <button type="button" class="push" :disabled="busy" @click="save(one)">{{ t('customers.save') }}</button>
          <button type="button" class="push" data-test="consider" @click="consider(one)">{{ t('customers.erase') }}</button>
        </span>
      </li>
    </ul>
  </section>
  <section v-if="about" class="sheet" data-test="erase">
    <h2>{{ t('customers.eraseTitle', { name: about.name }) }}</h2>
    <p>
      <strong>{{ t('customers.goes') }}</strong>
    </p>
    <ul class="points">
      <li>{{ t('customers.stays') }}</li>
      <li>{{ t('customers.invoices') }}</li>
      <li>{{ t('customers.backups') }}</li>
    </ul>
    <label class="inline"><input v-model="photos" type="checkbox" /> {{ t('customers.photos') }}</label>
    <p class="inline">
      <button type="button" class="push full" :disabled="busy" data-test="erase-now" @click="erase(about)">
        {{ t('customers.eraseIt') }}
      </button>
      <button type="button" class="push" @click="about = undefined">{{ t('customers.cancel') }}</button>
    </p>
  </section>
  <section v-if="erased" class="sheet" role="status" data-test="erased">
    <h2>{{ t('customers.done') }} {{ d(new Date(erased.at), 'minute') }}</h2>
    <dl class="counts">
      <div v-for="[key, n] in counted" :key="key">
        <dt>{{ t(`customers.${key}`) }}</dt>
        <dd class="reading">{{ n }}</dd>
      </div>
    </dl>
    <p v-if="erased.photosKept > 0">{{ t('customers.kept', erased.photosKept) }}</p>
    <p v-if="erased.mentions.length === 0 && erased.elsewhere === 0">{{ t('customers.clean') }}</p>
    <template v-if="erased.mentions.length > 0">
      <p>{{ t('customers.mentions') }}</p>
      <p class="inline">
        <RouterLink v-for="job in erased.mentions" :key="job.jobId" :to="`/jobs/${job.jobId}`">
          {{ t('customers.job', { n: job.number }) }}
        </RouterLink>
      </p>
    </template>
    <p v-if="erased.elsewhere > 0">{{ t('customers.elsewhere', erased.elsewhere) }}</p>
    <p class="soft">{{ t('customers.backups') }}</p>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 8px;
  margin-bottom: 10px;
}
.sheet {
  margin-bottom: 10px;
}
.search {
  justify-self: start;
  align-self: end;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 16px;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
.line:last-child {
  border-bottom: 0;
}
.line .inline {
  margin-left: auto;
}
.name {
  overflow-wrap: anywhere;
}
.points {
  margin: 0 0 10px;
  padding-left: 20px;
  list-style: disc;
}
.counts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 28px;
  margin: 0 0 10px;
}
.counts dt {
  font-size: 14px;
  color: var(--ink-soft);
}
.counts dd {
  margin: 0;
}
</style>
