<script setup lang="ts">
/** The meter's reading into the field that had the focus last; and why there is none. */
import { computed, onMounted } from 'vue';
import { useI18n } from 'vue-i18n';
import { useMeter } from '../stores/meter.ts';
import KeyCap from './KeyCap.vue';

/** `serial`: a hand meter may be connected here. */
defineProps<{ serial?: boolean }>();
const { t } = useI18n();
const meter = useMeter();
onMounted(() => {
  if (!meter.state) void meter.load();
});
const trouble = computed(() => {
  const said = meter.said;
  if (!said) return '';
  return t(`meter.said.${said.kind}`, { detail: 'detail' in said ? said.detail : '' });
});
</script>

<template>
  <span class="meter">
    <button
      v-if="meter.there"
      type="button"
      class="push"
      :disabled="meter.busy"
      data-test="read-meter"
      @mousedown.prevent
      @click="meter.read()"
    >
      <KeyCap label="F2" />{{ meter.state?.simulated && !meter.hand ? t('meter.readSimulated') : t('meter.read') }}
    </button>
    <button v-if="serial && !meter.hand && meter.maySerial()" type="button" class="plain" @click="meter.connectHand()">
      {{ t('meter.serial') }}
    </button>
    <span v-if="trouble" class="alarm" role="alert">{{ trouble }}</span>
  </span>
</template>

<style scoped>
.meter {
  display: inline-flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
}
.push {
  min-height: 40px;
  padding: 2px 10px;
}
</style>
