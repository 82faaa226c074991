import { words } from '@veglia/contract';
import { createI18n } from 'vue-i18n';
import { en } from './messages/en/index.ts';

export const i18n = createI18n({
  legacy: false,
  locale: 'en',
  fallbackLocale: 'en',
  datetimeFormats: {
    en: {
      day: { day: 'numeric', month: 'short', year: 'numeric' },
      weekday: { weekday: 'short', day: 'numeric', month: 'short' },
      minute: { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit', hourCycle: 'h23' },
    },
  },
  messages: { en: { ...en, core: words.en } },
});
