<script setup lang="ts">
/** Who works here and what they may do, which benches are trusted, and what was done of it. For an owner. */
import { addAccountSchema, boundsOf, roles, type Account, type AuditLine, type Bench, type Role } from '@veglia/contract';
import { v7 as uuidv7 } from 'uuid';
import { onMounted, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { api } from '../../api.ts';
import { useAsked } from '../../asked.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import TextField from '../../parts/TextField.vue';
import { saveBlob } from '../../saveBlob.ts';
import { useSession } from '../../stores/session.ts';

const { t, d } = useI18n();
const session = useSession();
const accounts = ref<readonly Account[]>([]);
const benches = ref<readonly Bench[]>([]);
const lines = ref<readonly AuditLine[]>([]);
const code = ref<{ name: string; code: string; until: string }>();
const { wrong, ask } = useAsked();
/** Whose name is about to be erased. */
const leaving = ref<Account>();
const form = reactive<{ name: string; role: Role }>({ name: '', role: 'technician' });

async function took(changed: Promise<readonly Account[] | undefined>): Promise<boolean> {
  const now = await changed;
  if (!now) return false;
  accounts.value = now;
  await older(true);
  return true;
}
async function older(fromTop = false): Promise<void> {
  const last = fromTop ? undefined : lines.value.at(-1)?.id;
  const more = await ask(api.audit(last));
  if (more) lines.value = fromTop ? more : [...lines.value, ...more];
}
onMounted(async () => {
  accounts.value = (await ask(api.accounts())) ?? [];
  benches.value = (await ask(api.benches())) ?? [];
  await older(true);
});
async function add(): Promise<void> {
  if (await took(ask(api.addAccount({ id: uuidv7(), name: form.name, role: form.role })))) {
    form.name = '';
    await session.load();
  }
}
const change = (id: string, to: { role?: Role; left?: boolean }): Promise<boolean> => took(ask(api.changeAccount(id, to)));
async function invite({ id, name }: Account): Promise<void> {
  const made = await ask(api.inviteAccount(id));
  if (!made) return;
  code.value = { name, ...made };
  accounts.value = (await ask(api.accounts())) ?? accounts.value;
}
async function save({ id, name }: Account): Promise<void> {
  const data = await ask(api.accountData(id));
  if (data) saveBlob(new Blob([JSON.stringify(data, null, 2)], { type: 'application/json' }), `${name}.json`);
}
async function eraseName({ id }: Account): Promise<void> {
  if (!(await took(ask(api.eraseAccount(id))))) return;
  leaving.value = undefined;
  await session.load();
}
async function endBench(id: string): Promise<void> {
  benches.value = (await ask(api.endBench(id))) ?? benches.value;
}
const when = (iso: string): string => d(new Date(iso), 'minute');
</script>

<template>
  <header class="head">
    <h1>{{ t('accounts.title') }}</h1>
    <RouterLink to="/settings" class="push">{{ t('accounts.toSettings') }}</RouterLink>
  </header>
  <p v-if="wrong" role="alert" class="alarm" data-test="accounts-wrong">{{ wrong }}</p>
  <p v-if="code" class="sheet code" role="status" data-test="invitation">
    {{ t('accounts.code', { name: code.name, until: when(code.until) }) }} <strong class="reading">{{ code.code }}</strong>
  </p>
  <section class="sheet scroll" data-test="accounts">
    <table>
      <thead>
        <tr>
          <th>{{ t('accounts.name') }}</th>
          <th>{{ t('accounts.role') }}</th>
          <th>{{ t('accounts.access') }}</th>
          <th>{{ t('accounts.last') }}</th>
          <th>{{ t('accounts.factor') }}</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in accounts" :key="one.id" :data-person="one.id" :class="{ gone: one.state === 'left' }">
          <td>
            <strong>{{ one.name }}</strong>
          </td>
          <td>
            <select
              :aria-label="`${t('accounts.role')}: ${one.name}`"
              :value="one.role"
              :title="t(`accounts.roleHelp.${one.role}`)"
              @change="change(one.id, { role: ($event.target as HTMLSelectElement).value as Role })"
            >
              <option v-for="role in roles" :key="role" :value="role">{{ t(`account.role.${role}`) }}</option>
            </select>
          </td>
          <td>{{ t(`accounts.state.${one.state}`) }}</td>
          <td>{{ one.lastSignIn === null ? t('accounts.never') : when(one.lastSignIn) }}</td>
          <td>{{ t(one.hasFactor ? 'accounts.yes' : 'accounts.no') }}</td>
          <td class="inline">
            <button v-if="one.state !== 'left'" type="button" class="push" data-test="invite" @click="invite(one)">
              {{ t(one.state === 'active' ? 'accounts.reset' : 'accounts.invite') }}
            </button>
            <button type="button" class="push" @click="change(one.id, { left: one.state !== 'left' })">
              {{ t(one.state === 'left' ? 'accounts.comeBack' : 'accounts.leave') }}
            </button>
            <button type="button" class="plain" @click="save(one)">{{ t('accounts.save') }}</button>
            <button v-if="one.state === 'left'" type="button" class="plain" data-test="erase-name" @click="leaving = one">
              {{ t('accounts.erase') }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
  <section v-if="leaving" class="sheet" data-test="erase-person">
    <h2>{{ t('accounts.eraseTitle', { name: leaving.name }) }}</h2>
    <p>{{ t('accounts.eraseHelp') }}</p>
    <p class="inline">
      <button type="button" class="push full" @click="eraseName(leaving)">{{ t('accounts.eraseIt') }}</button>
      <button type="button" class="push" @click="leaving = undefined">{{ t('customers.cancel') }}</button>
    </p>
  </section>
  <form class="sheet fields quarters" novalidate data-test="add-person" @submit.prevent="add">
    <h2 class="wide">{{ t('accounts.add') }}</h2>
    <TextField id="account-name" v-model="form.name" :bounds="boundsOf(addAccountSchema.shape.name)" :label="t('accounts.name')" />
    <ChoiceField
      id="account-role"
      v-model="form.role"
      :label="t('accounts.role')"
      :options="roles.map((value) => ({ value, label: t(`account.role.${value}`) }))"
    />
    <button type="submit" class="push full end">{{ t('accounts.addIt') }}</button>
    <p class="wide soft">{{ t(`accounts.roleHelp.${form.role}`) }}</p>
  </form>
  <section class="sheet" data-test="benches">
    <h2>{{ t('accounts.benches') }}</h2>
    <p v-if="benches.length === 0" class="soft">{{ t('accounts.noBenches') }}</p>
    <ul v-else class="plainlist">
      <li v-for="one in benches" :key="one.id" class="inline">
        <strong>{{ one.name }}</strong>
        <span class="soft">{{ t('accounts.benchBy', { by: one.by, at: when(one.at) }) }}</span>
        <span v-if="one.ended" class="soft">{{ t('accounts.benchEnded') }}</span>
        <button v-else type="button" class="plain" @click="endBench(one.id)">{{ t('accounts.benchEnd') }}</button>
      </li>
    </ul>
  </section>
  <section class="sheet scroll" data-test="audit">
    <h2>{{ t('accounts.audit') }}</h2>
    <p v-if="lines.length === 0" class="soft">{{ t('accounts.nothingYet') }}</p>
    <table v-else>
      <thead>
        <tr>
          <th>{{ t('accounts.when') }}</th>
          <th>{{ t('accounts.what') }}</th>
          <th>{{ t('accounts.who') }}</th>
          <th>{{ t('accounts.about') }}</th>
          <th>{{ t('accounts.from') }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="line in lines" :key="line.id">
          <td>{{ when(line.at) }}</td>
          <td>{{ t(`accounts.kind.${line.what}`) }}</td>
          <td>{{ line.who ?? '–' }}</td>
          <td>{{ line.about ?? '–' }}</td>
          <td class="reading">{{ line.from ?? '–' }}</td>
        </tr>
      </tbody>
    </table>
    <button v-if="lines.length % 200 === 0 && lines.length > 0" type="button" class="plain" @click="older()">
      {{ t('accounts.more') }}
    </button>
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
.scroll {
  overflow-x: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  font-size: 14px;
  color: var(--ink-soft);
  text-align: left;
}
th,
td {
  padding: 6px;
  border-bottom: 1px solid var(--line);
}
.gone td:first-child {
  text-decoration: line-through;
}
.plainlist {
  margin: 0;
  padding: 0;
  list-style: none;
}
.end {
  place-self: end start;
}
.code strong {
  font-size: 20px;
  white-space: nowrap;
}
select {
  min-height: 40px;
  padding: 0 6px;
}
</style>
