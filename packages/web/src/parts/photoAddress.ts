/** Where a photo is shown from: here while it waits to be sent, the server afterwards. */
import { onUnmounted, ref, watch, type Ref } from 'vue';
import { photoUrl } from '../stores/photos.ts';

/** Empty until it is known; an address of this browser's own memory is let go of when another photo is shown, or none. `changed`: another is. */
export function usePhotoAddress(photo: () => string, changed?: () => void): Ref<string> {
  const address = ref('');
  const letGo = (): void => {
    if (address.value.startsWith('blob:')) URL.revokeObjectURL(address.value);
  };
  watch(
    photo,
    async (id) => {
      const found = await photoUrl(id);
      letGo();
      address.value = found;
      changed?.();
    },
    { immediate: true },
  );
  onUnmounted(letGo);
  return address;
}
