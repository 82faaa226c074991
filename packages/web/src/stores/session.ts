/**
 * Who is signed in here, and how it looks. The server says who; without one, whoever was here last goes on, and what others of this bench write
 * then is kept under their names and sent once they sign in.
 */
import { mayUse, mayWrite, signedInSchema, type Operation, type Person, type Session, type SignedIn } from '@veglia/contract';
import type { EntryKind } from '@veglia/core';
import { useLocalStorage, usePreferredDark } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watchEffect } from 'vue';
import { api, door, NotReached, signedInAs, type Reply } from '../api.ts';
import { local } from './local.ts';

const retryAfter = 3000;
type Kept = Pick<SignedIn, 'id' | 'name' | 'role'>;
const keptAt = 'veglia.signed-in';
const lockedAt = 'veglia.locked';
const erasedAt = 'veglia.erased';
/** Read once: another tab's person is not this one's until the server says so. */
function readKept(): Kept | undefined {
  const read = signedInSchema.pick({ id: true, name: true, role: true }).safeParse(JSON.parse(localStorage.getItem(keptAt) ?? 'null'));
  return read.data;
}

/** Somebody's data was erased since: nothing that was kept for working without a server may still hold it. */
async function forgetKept(at: string | null): Promise<void> {
  if (at === null || localStorage.getItem(erasedAt) === at) return;
  await (await local()).clear('kept');
  localStorage.setItem(erasedAt, at);
}

export const useSession = defineStore('session', () => {
  const people = ref<Person[]>([]);
  const state = shallowRef<Session>();
  /** Whoever was here last, for a start without a server. */
  const kept = shallowRef(readKept());
  const away = ref(false);
  /** Without a server: somebody else of this bench, not confirmed yet. */
  const standIn = shallowRef<Kept>();
  /** Signed out in the middle: what is on the screen stays below. */
  const interrupted = ref(false);
  /** The server that would know them is away: somebody of the bench may go on. */
  const unreached = ref(false);
  const confirming = shallowRef<(shown: boolean) => void>();
  const dark = useLocalStorage('veglia.dark', usePreferredDark().value ? 'yes' : 'no');
  const person = computed<Kept | undefined>(
    () => standIn.value ?? state.value?.signedIn ?? (interrupted.value || away.value ? kept.value : undefined),
  );
  /** Who may take over without a server. */
  const others = computed(() =>
    state.value?.demo === false ? (state.value.bench?.people ?? []) : people.value.filter(({ left }) => !left),
  );

  watchEffect(() => document.documentElement.classList.toggle('dark', dark.value === 'yes'));

  const told = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('veglia-session');
  /** Another tab signed in or out: the cookie is the browser's. */
  if (told) told.onmessage = () => void load();

  function accept(session: Session): void {
    const last = person.value?.id;
    state.value = session;
    away.value = false;
    unreached.value = false;
    standIn.value = undefined;
    const { signedIn } = session;
    signedInAs.value = signedIn?.id;
    void forgetKept(session.erasedAt);
    if (!signedIn) return;
    // Somebody else than whose work is on the screen: nothing of it is carried over.
    const other = interrupted.value && last !== undefined && last !== signedIn.id;
    kept.value = { id: signedIn.id, name: signedIn.name, role: signedIn.role };
    localStorage.setItem(keptAt, JSON.stringify(kept.value));
    interrupted.value = false;
    localStorage.removeItem(lockedAt);
    if (other) location.reload();
  }
  /** Takes over what the server says of the session; a refusal is given back. */
  async function become(reply: Promise<Reply<Session>>): Promise<Reply<Session>> {
    const said = await reply;
    if (said.ok) {
      accept(said.value);
      told?.postMessage('changed');
      if (said.value.signedIn) await loadPeople();
    }
    return said;
  }

  async function loadPeople(): Promise<void> {
    const reply = await api.people();
    if (reply.ok) people.value = reply.value;
  }
  async function load(): Promise<void> {
    // Whoever writes on without a server is asked who they are, and never becomes whoever was signed in before.
    if (standIn.value) return confirmStandIn(standIn.value.id);
    try {
      // Locked while the server was away: what it still takes for signed in ends first.
      if (localStorage.getItem(lockedAt) !== null) {
        await api.signOut();
        localStorage.removeItem(lockedAt);
      }
      const reply = await api.session();
      if (!reply.ok) return;
      if (reply.value.demo && !reply.value.signedIn) {
        const again = await api.signInToDemo(kept.value?.id);
        accept(again.ok ? again.value : ((await api.signInToDemo().then((one) => (one.ok ? one.value : undefined))) ?? reply.value));
      } else accept(reply.value);
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
      if (!state.value) away.value = true;
      setTimeout(() => void load(), retryAfter);
    }
    // Without a server those that were kept.
    if (person.value) await loadPeople().catch(() => undefined);
  }
  door.signedOut = () => {
    if (!state.value?.signedIn) return;
    state.value = { ...state.value, signedIn: null };
    interrupted.value = true;
    void load();
  };
  door.confirm = () => new Promise((resolve) => (confirming.value = resolve));
  function confirmed(shown: boolean): void {
    confirming.value?.(shown);
    confirming.value = undefined;
  }

  /** In the demo anybody is anybody. */
  async function choose(id: string): Promise<void> {
    try {
      await become(api.signInToDemo(id));
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
      goOnAs(id);
    }
  }
  /** Without a server somebody of this bench writes on; it is sent once the server is back and they have shown who they are. */
  function goOnAs(id: string): void {
    const one = people.value.find((other) => other.id === id);
    if (!one) return;
    standIn.value = { id: one.id, name: one.name, role: one.role };
    interrupted.value = false;
    setTimeout(() => void confirmStandIn(id), retryAfter);
  }
  async function confirmStandIn(id: string): Promise<void> {
    if (standIn.value?.id !== id) return;
    try {
      const reply = await api.session();
      if (reply.ok && reply.value.demo) await become(api.signInToDemo(id));
      // Locked before: the cookie that is still there is no proof of who stands here.
      else if (reply.ok && reply.value.signedIn?.id === id && localStorage.getItem(lockedAt) === null) accept(reply.value);
      else {
        // Whoever was signed in before is not whoever wrote since.
        interrupted.value = true;
        await become(api.signOut());
      }
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
      setTimeout(() => void confirmStandIn(id), retryAfter);
    }
  }
  /** Whoever is next signs in on top of what is on the screen. */
  async function lock(): Promise<void> {
    interrupted.value = true;
    try {
      await become(api.signOut());
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
      unreached.value = true;
      localStorage.setItem(lockedAt, 'yes');
    }
  }
  const may = (operation: Operation): boolean => mayUse(person.value?.role, operation);
  const writes = (kind: EntryKind): boolean => person.value !== undefined && mayWrite(person.value.role, kind);

  return {
    people,
    state,
    person,
    others,
    away,
    interrupted,
    unreached,
    confirming,
    dark,
    load,
    become,
    choose,
    goOnAs,
    lock,
    confirmed,
    may,
    writes,
  };
});
