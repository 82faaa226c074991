/** The shop's settings, for a screen that works with them; the usual ones until they are here, and where the server is away. */
import { usualShopSettings, type ShopSettings } from '@veglia/contract';
import { onMounted, shallowRef, type ShallowRef } from 'vue';
import { api, NotReached } from '../api.ts';

export function useShopSettings(): Readonly<ShallowRef<ShopSettings>> {
  const shop = shallowRef<ShopSettings>(usualShopSettings);
  onMounted(async () => {
    try {
      const reply = await api.shop();
      if (reply.ok) shop.value = reply.value.settings;
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
    }
  });
  return shop;
}
