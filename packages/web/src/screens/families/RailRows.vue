<script setup lang="ts">
/** Rails and control lines of a family, a row each. */
import { useI18n } from 'vue-i18n';
import { blankRail, type TypedRail } from './typedFamily.ts';

defineProps<{ /** Id -> name of where a meter goes. */ points: ReadonlyMap<string, string> }>();
const rails = defineModel<TypedRail[]>({ required: true });
const { t } = useI18n();
const texts = ['name', 'volts', 'tolerance', 'ohms', 'source'] as const;
const columns = ['name', 'point', 'state', 'volts', 'tolerance', 'ohms', 'source'] as const;
const isText = (column: (typeof columns)[number]): column is (typeof texts)[number] => texts.some((one) => one === column);
</script>

<template>
  <div class="scroll" tabindex="0" role="group" :aria-label="t('families.rails')">
    <table v-if="rails.length > 0">
      <thead>
        <tr>
          <th v-for="one in columns" :key="one" scope="col">{{ t(`families.rail.${one}`) }}</th>
          <th>
            <span class="visually-hidden">{{ t('families.rail.remove') }}</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(rail, index) in rails" :key="index" data-test="rail-row">
          <td v-for="one in columns" :key="one" :class="one">
            <input v-if="isText(one)" v-model="rail[one]" type="text" :aria-label="`${t(`families.rail.${one}`)} ${index + 1}`" />
            <select v-else-if="one === 'state'" v-model="rail.state" :aria-label="`${t('families.rail.state')} ${index + 1}`">
              <option value="standby">{{ t('families.rail.standby') }}</option>
              <option value="on">{{ t('families.rail.on') }}</option>
            </select>
            <select v-else v-model="rail.point" :aria-label="`${t('families.rail.point')} ${index + 1}`">
              <option v-for="[id, name] in points" :key="id" :value="id">{{ name }}</option>
              <option v-if="rail.point !== '' && !points.has(rail.point)" :value="rail.point">{{ rail.point }}</option>
            </select>
          </td>
          <td>
            <button type="button" class="plain" :aria-label="`${t('families.rail.remove')} ${rail.name}`" @click="rails.splice(index, 1)">
              ✕
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
  <button type="button" class="push" data-test="add-rail" @click="rails.push(blankRail())">{{ t('families.rail.add') }}</button>
</template>

<style scoped>
/* What is hidden inside it stays inside, too. */
.scroll {
  position: relative;
  overflow-x: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 15px;
}
th {
  text-align: left;
  font-weight: 600;
  color: var(--ink-soft);
}
td {
  padding: 2px 3px 2px 0;
}
input,
select {
  width: 100%;
  min-width: 52px;
  min-height: 40px;
  padding: 2px 6px;
  border: 1px solid var(--ink-soft);
  border-radius: var(--radius);
  background: transparent;
}
td.name input,
td.source input {
  min-width: 80px;
}
</style>
