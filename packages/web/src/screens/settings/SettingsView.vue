<script setup lang="ts">
/** What the shop says of itself. One document, stored as a whole; somebody else's change in between is told, not overwritten. */
import { boundsOf, parseAmount, plainAmount, shopSettingsSchema, type ShopSettings } from '@veglia/contract';
import { paperLanguages } from '@veglia/core';
import { defineAsyncComponent, onMounted, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import { parseBetween } from '../../numbers.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import FormField from '../../parts/FormField.vue';
import TextField from '../../parts/TextField.vue';
import NotReachedSheet from '../../parts/NotReachedSheet.vue';
import { textOf, usePacks } from '../../stores/packs.ts';
import { useSession } from '../../stores/session.ts';

const PracticeOffer = defineAsyncComponent(() => import('../practice/PracticeOffer.vue'));
const { t } = useI18n();
const packs = usePacks();
const session = useSession();
const reached = ref(true);
const ready = ref(false);
const version = ref(0);
const said = ref('');
const refusal = ref('');
const errors = reactive<Record<string, string>>({});
/** As typed; amounts and lists are text until they are stored. */
interface SettingsForm {
  shopName: string;
  shopContact: string;
  currency: string;
  rate: string;
  waitShare: string;
  wrongPart: string;
  wrongPartShare: string;
  hazard: string;
  newSet: string;
  checkFee: string;
  orderFree: string;
  tax: string;
  pricesHoldTax: boolean;
  warrantyDays: string;
  quoteDays: string;
  uncollectedDays: string;
  customerLanguage: ShopSettings['customerLanguage'];
  mainsVolts: string;
  lapse: string;
  userDataDays: string;
  mainsHertz: 50 | 60;
  temperature: 'C' | 'F';
  allTools: boolean;
  tools: string[];
  schools: Record<string, string>;
  benches: string;
  shelves: string;
  gear: { name: string; provenOn: string; tool: string }[];
  localCautions: string;
  receiptText: string;
}
const { shape } = shopSettingsSchema;
const percent = (schema: typeof shape.waitShare): { least: number; most: number } => {
  const { least = 0, most = 1 } = boundsOf(schema);
  return { least: least * 100, most: most * 100 };
};
const percents = { waitShare: percent(shape.waitShare), wrongPartShare: percent(shape.wrongPartShare) };
/** Stands for gear that is no tool of the pack. */
const anyTool = 'any';
const form = reactive<SettingsForm>({
  shopName: '',
  shopContact: '',
  currency: '',
  rate: '',
  waitShare: '',
  wrongPart: '',
  wrongPartShare: '',
  hazard: '',
  newSet: '',
  checkFee: '',
  orderFree: '',
  tax: '',
  pricesHoldTax: true,
  warrantyDays: '',
  quoteDays: '',
  uncollectedDays: '',
  customerLanguage: 'en',
  mainsVolts: '',
  lapse: '',
  userDataDays: '',
  mainsHertz: 50,
  temperature: 'C',
  allTools: true,
  tools: [],
  schools: {},
  benches: '',
  shelves: '',
  gear: [],
  localCautions: '',
  receiptText: '',
});

const lines = (text: string): string[] =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '');

function show(settings: ShopSettings): void {
  const { shopName, shopContact, currency, mainsHertz, temperature, localCautions, receiptText } = settings;
  Object.assign(form, { shopName, shopContact, currency, mainsHertz, temperature, localCautions, receiptText });
  form.rate = plainAmount(settings.rateMinorPerHour, settings.currency);
  form.waitShare = String(Math.round(settings.waitShare * 100));
  form.wrongPart = plainAmount(settings.wrongPartMinor, settings.currency);
  form.hazard = plainAmount(settings.hazardMinor, settings.currency);
  form.wrongPartShare = String(Math.round(settings.wrongPartShare * 100));
  form.newSet = plainAmount(settings.newSetMinor, settings.currency);
  form.checkFee = plainAmount(settings.checkFeeMinor, settings.currency);
  form.orderFree = plainAmount(settings.orderFreeMinor, settings.currency);
  form.tax = String(settings.taxBasisPoints / 100);
  form.pricesHoldTax = settings.pricesHoldTax;
  form.customerLanguage = settings.customerLanguage;
  for (const field of dayFields) form[field] = String(settings[field]);
  form.mainsVolts = String(settings.mainsVolts);
  form.lapse = String(settings.lapseMinutes);
  form.userDataDays = String(settings.userDataDays);
  form.allTools = settings.tools === null;
  form.tools = [...(settings.tools ?? packs.current?.pack.tools.map(({ id }) => id) ?? [])];
  form.schools = { ...settings.schools };
  form.benches = settings.benches.join('\n');
  form.shelves = settings.shelves.join('\n');
  form.gear = settings.gear.map((one) => ({ name: one.name, provenOn: one.provenOn ?? '', tool: one.tool ?? anyTool }));
}

async function load(): Promise<void> {
  try {
    await packs.loadCurrent();
    const reply = await api.shop();
    if (!reply.ok) return;
    version.value = reply.value.version;
    show(reply.value.settings);
    ready.value = true;
    reached.value = true;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    reached.value = false;
  }
}
onMounted(load);

const dayFields = ['warrantyDays', 'quoteDays', 'uncollectedDays'] as const;

/** Settings as stored, or undefined with the errors told at their fields. */
function read(): ShopSettings | undefined {
  for (const key of Object.keys(errors)) delete errors[key];
  const price = (field: 'rate' | 'wrongPart' | 'hazard' | 'newSet' | 'checkFee' | 'orderFree'): number => {
    const minor = parseAmount(form[field], form.currency.trim().toUpperCase());
    if (minor === undefined) errors[field] = t('counter.errors.limit', { value: form[field] });
    return minor ?? 0;
  };
  const share = (field: 'waitShare' | 'wrongPartShare'): number => {
    const percent = parseBetween(form[field], percents[field]);
    if (percent === undefined) errors[field] = t('settings.errors.share', { value: form[field], ...percents[field] });
    return (percent ?? 0) / 100;
  };
  const candidate = {
    shopName: form.shopName,
    shopContact: form.shopContact,
    currency: form.currency.trim().toUpperCase(),
    rateMinorPerHour: price('rate'),
    waitShare: share('waitShare'),
    wrongPartMinor: price('wrongPart'),
    hazardMinor: price('hazard'),
    wrongPartShare: share('wrongPartShare'),
    newSetMinor: price('newSet'),
    checkFeeMinor: price('checkFee'),
    orderFreeMinor: price('orderFree'),
    taxBasisPoints: Math.round(Number(form.tax.replace(',', '.')) * 100),
    pricesHoldTax: form.pricesHoldTax,
    customerLanguage: form.customerLanguage,
    warrantyDays: Number(form.warrantyDays),
    quoteDays: Number(form.quoteDays),
    uncollectedDays: Number(form.uncollectedDays),
    mainsVolts: Number(form.mainsVolts.replace(',', '.')),
    lapseMinutes: Number(form.lapse),
    userDataDays: Number(form.userDataDays),
    mainsHertz: form.mainsHertz,
    temperature: form.temperature,
    tools: form.allTools ? null : [...form.tools],
    schools: { ...form.schools },
    benches: lines(form.benches),
    shelves: lines(form.shelves),
    gear: form.gear
      .filter((one) => one.name.trim() !== '')
      .map((one) => ({ name: one.name.trim(), provenOn: one.provenOn || null, tool: one.tool === anyTool ? null : one.tool })),
    localCautions: form.localCautions,
    receiptText: form.receiptText,
  };
  const parsed = shopSettingsSchema.safeParse(candidate);
  for (const issue of parsed.error?.issues ?? []) {
    const field = String(issue.path[0]);
    errors[{ newSetMinor: 'newSet', lapseMinutes: 'lapse', taxBasisPoints: 'tax' }[field] ?? field] ??=
      field === 'currency' ? t('settings.errors.currency', { value: form.currency }) : issue.message;
  }
  return Object.keys(errors).length === 0 ? parsed.data : undefined;
}

async function save(): Promise<void> {
  said.value = '';
  refusal.value = '';
  const settings = read();
  const by = session.person?.id;
  if (!settings || by === undefined) return;
  try {
    const reply = await api.changeShop({ by, version: version.value, settings });
    if (reply.ok) {
      version.value = reply.value.version;
      said.value = t('settings.stored');
    } else refusal.value = [reply.problem.title, ...(reply.problem.problems ?? []).map((one) => one.sentence)].join(' ');
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    refusal.value = t('common.notReached');
  }
}
</script>

<template>
  <h1>{{ t('settings.title') }}</h1>
  <NotReachedSheet v-if="!reached" @again="load" />
  <form v-else-if="ready && packs.current" class="settings" novalidate @submit.prevent="save">
    <fieldset class="sheet fields quarters">
      <legend>{{ t('settings.shop') }}</legend>
      <TextField
        id="shopName"
        v-model="form.shopName"
        :label="t('settings.shopName')"
        :bounds="boundsOf(shape.shopName)"
        :error="errors.shopName"
      />
      <TextField id="shopContact" v-model="form.shopContact" :label="t('settings.shopContact')" :bounds="boundsOf(shape.shopContact)" />
      <TextField id="benches" v-model="form.benches" :label="t('settings.benches')" :error="errors.benches" :rows="3" />
      <TextField id="shelves" v-model="form.shelves" :label="t('settings.shelves')" :error="errors.shelves" :rows="3" />
    </fieldset>
    <fieldset class="sheet fields quarters">
      <legend>{{ t('settings.money') }}</legend>
      <TextField id="currency" v-model="form.currency" :label="t('settings.currency')" :error="errors.currency" />
      <TextField id="rate" v-model="form.rate" :label="t('settings.rate')" :error="errors.rate" inputmode="decimal" />
      <TextField id="waitShare" v-model="form.waitShare" :label="t('settings.waitShare')" :error="errors.waitShare" inputmode="numeric" />
      <TextField id="checkFee" v-model="form.checkFee" :label="t('settings.checkFee')" :error="errors.checkFee" inputmode="decimal" />
      <TextField id="newSet" v-model="form.newSet" :label="t('settings.newSet')" :error="errors.newSet" inputmode="decimal" />
      <TextField id="wrongPart" v-model="form.wrongPart" :label="t('settings.wrongPart')" :error="errors.wrongPart" inputmode="decimal" />
      <TextField
        id="wrongPartShare"
        v-model="form.wrongPartShare"
        :label="t('settings.wrongPartShare')"
        :error="errors.wrongPartShare"
        inputmode="numeric"
      />
      <TextField id="hazard" v-model="form.hazard" :label="t('settings.hazard')" :error="errors.hazard" inputmode="decimal" />
      <TextField id="orderFree" v-model="form.orderFree" :label="t('settings.orderFree')" :error="errors.orderFree" inputmode="decimal" />
      <TextField id="tax" v-model="form.tax" :label="t('settings.tax')" :error="errors.tax" inputmode="decimal" />
      <TextField
        v-for="field in dayFields"
        :id="field"
        :key="field"
        v-model="form[field]"
        :label="t(`settings.${field}`)"
        :error="errors[field]"
        inputmode="numeric"
      />
      <ChoiceField
        id="customerLanguage"
        v-model="form.customerLanguage"
        :label="t('settings.customerLanguage')"
        :options="paperLanguages.map((value) => ({ value, label: t(`language.${value}`) }))"
      />
      <el-checkbox v-model="form.pricesHoldTax" class="bottom">{{ t('settings.pricesHoldTax') }}</el-checkbox>
    </fieldset>
    <fieldset class="sheet fields quarters">
      <legend>{{ t('settings.place') }}</legend>
      <TextField
        id="mainsVolts"
        v-model="form.mainsVolts"
        :label="t('settings.mainsVolts')"
        :error="errors.mainsVolts"
        inputmode="numeric"
      />
      <TextField id="lapse" v-model="form.lapse" :label="t('settings.lapse')" :error="errors.lapse" inputmode="numeric" />
      <TextField
        id="user-data-days"
        v-model="form.userDataDays"
        :label="t('settings.userDataDays')"
        :error="errors.userDataDays"
        inputmode="numeric"
      />
      <FormField id="mainsHertz" :label="t('settings.mainsHertz')">
        <el-select id="mainsHertz" v-model="form.mainsHertz"
          ><el-option v-for="one in [50, 60]" :key="one" :value="one" :label="`${one} Hz`"
        /></el-select>
      </FormField>
      <FormField id="temperature" :label="t('settings.temperature')">
        <el-select id="temperature" v-model="form.temperature"
          ><el-option v-for="one in ['C', 'F']" :key="one" :value="one" :label="`°${one}`"
        /></el-select>
      </FormField>
    </fieldset>
    <fieldset class="sheet fields quarters">
      <legend>{{ t('settings.tools') }}</legend>
      <div class="wide">
        <el-checkbox v-model="form.allTools">{{ t('settings.allTools') }}</el-checkbox>
        <p class="soft">{{ t('settings.toolsHelp') }}</p>
      </div>
      <el-checkbox-group v-if="!form.allTools" v-model="form.tools" class="wide" :aria-label="t('settings.tools')">
        <el-checkbox v-for="tool in packs.current.pack.tools" :key="tool.id" :value="tool.id">{{ textOf(tool.name) }}</el-checkbox>
      </el-checkbox-group>
      <div class="wide gear">
        <p class="soft">{{ t('settings.gearHelp') }}</p>
        <div v-for="(one, index) in form.gear" :key="index" class="gearline">
          <el-input v-model="one.name" :aria-label="t('settings.gearName')" />
          <el-select v-model="one.tool" :aria-label="t('settings.gearTool')">
            <el-option :value="anyTool" :label="t('settings.gearAny')" />
            <el-option v-for="tool in packs.current.pack.tools" :key="tool.id" :value="tool.id" :label="textOf(tool.name)" />
          </el-select>
          <el-date-picker
            v-model="one.provenOn"
            value-format="YYYY-MM-DD"
            :aria-label="t('settings.provenOn')"
            :placeholder="t('settings.provenOn')"
          />
          <button type="button" class="plain" @click="form.gear.splice(index, 1)">{{ t('settings.remove') }}</button>
        </div>
        <button type="button" class="plain" @click="form.gear.push({ name: '', provenOn: '', tool: anyTool })">
          {{ t('settings.addGear') }}
        </button>
      </div>
    </fieldset>
    <fieldset class="sheet fields quarters">
      <legend>{{ t('settings.schools') }}</legend>
      <FormField v-for="school in packs.current.pack.schools" :id="school.id" :key="school.id" :label="textOf(school.name)">
        <el-select
          :id="school.id"
          :model-value="form.schools[school.id] ?? school.usual"
          @update:model-value="(value: string) => (form.schools[school.id] = value)"
        >
          <el-option v-for="option in school.options" :key="option.id" :value="option.id" :label="textOf(option.name)" />
        </el-select>
      </FormField>
    </fieldset>
    <fieldset class="sheet fields quarters">
      <legend>{{ t('settings.texts') }}</legend>
      <TextField
        id="localCautions"
        v-model="form.localCautions"
        class="wider"
        :label="t('settings.localCautions')"
        :bounds="boundsOf(shape.localCautions)"
        :rows="3"
      />
      <TextField
        id="receiptText"
        v-model="form.receiptText"
        class="wider"
        :label="t('settings.receiptText')"
        :bounds="boundsOf(shape.receiptText)"
        :rows="3"
      />
    </fieldset>
    <fieldset class="sheet fields quarters">
      <legend>{{ t('settings.people') }}</legend>
      <p class="wide">
        {{
          session.people
            .filter(({ left }) => !left)
            .map((one) => one.name)
            .join(', ')
        }}
      </p>
      <RouterLink to="/account">{{ t('account.title') }}</RouterLink>
      <RouterLink v-if="session.may('listAccounts')" to="/accounts">{{ t('accounts.title') }}</RouterLink>
      <RouterLink v-if="session.may('eraseCustomer')" to="/customers">{{ t('customers.title') }}</RouterLink>
    </fieldset>
    <fieldset class="sheet fields about" data-test="about">
      <legend>{{ t('settings.about') }}</legend>
      <PracticeOffer always class="wide" />
      <RouterLink to="/settings/licences">{{ t('notices.title') }}</RouterLink>
      <a href="/api/docs" target="_blank">{{ t('settings.api') }}</a>
    </fieldset>
    <div class="foot">
      <button type="submit" class="push full" data-test="store">{{ t('settings.store') }}</button>
      <span v-if="said" role="status">{{ said }}</span>
      <span v-if="Object.keys(errors).length > 0" class="alarm" role="alert">{{ t('settings.errors.some') }}</span>
      <span v-if="refusal" class="alarm" role="alert">{{ t('counter.notStored') }}: {{ refusal }}</span>
    </div>
  </form>
  <p v-else class="soft">{{ t('common.loading') }}</p>
</template>

<style scoped>
.settings {
  display: grid;
  gap: 12px;
  margin-top: 10px;
}
.about a {
  display: inline-flex;
  align-items: center;
  min-height: 40px;
}
.end {
  align-self: end;
}
.gear,
.gearline {
  display: grid;
  gap: 8px;
}
.gearline {
  grid-template-columns: 2fr 1.4fr auto auto;
}
@media (max-width: 700px) {
  .gearline {
    grid-template-columns: minmax(0, 1fr);
  }
}
.foot {
  position: sticky;
  bottom: 0;
  display: flex;
  align-items: center;
  gap: 16px;
  padding: 10px 0;
  background: var(--ground);
}
</style>
