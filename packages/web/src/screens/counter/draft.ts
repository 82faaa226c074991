/** The intake on the screen and its draft: each has one of its own, and a draft belongs to one tab. */
import { nextTick, reactive, ref, shallowRef, watch } from 'vue';
import { v7 as uuidv7 } from 'uuid';
import { draftsOf, dropDraft, holdDraft, keepDraft, type Draft } from '../../stores/drafts.ts';
import { blankIntake, intakeOfDraft, isBlank, type IntakeForm } from './intake.ts';

const draftsBegin = 'intake';

/** `blank` fills in what the shop's settings suggest; `kept` says that nothing is written any more, because it was checked in. */
export function useIntakeDraft(blank: (form: IntakeForm) => void, kept: () => boolean) {
  const form = reactive(blankIntake(uuidv7()));
  /** When the draft on the screen was begun; empty where it was begun here and now. */
  const from = ref('');
  const aside = shallowRef<Draft[]>([]);
  const ready = ref(false);
  let letGo: (() => void) | undefined;
  let keeping: Promise<void> | undefined;
  /** While one draft gives way to another, nothing typed is written: it would be written under the wrong name. */
  let quiet = false;
  const name = (): string => `${draftsBegin}-${form.id}`;

  /** False where another tab has it. */
  async function take(draft: Draft): Promise<boolean> {
    const held = await holdDraft(draft.name);
    if (!held) return false;
    Object.assign(form, blankIntake(uuidv7()), intakeOfDraft(draft.content, form.id));
    // Drafts are named by their intake; one of an earlier version of this screen moves to its name.
    if (draft.name !== name()) {
      await keepDraft(name(), form);
      await dropDraft(draft.name);
    }
    letGo = draft.name === name() ? held : await holdDraft(name());
    from.value = draft.at;
    return true;
  }
  async function beginAnew(): Promise<void> {
    Object.assign(form, blankIntake(uuidv7()));
    blank(form);
    from.value = '';
    letGo = await holdDraft(name());
  }
  async function lookAside(): Promise<void> {
    const { held } = await navigator.locks.query();
    aside.value = (await draftsOf(draftsBegin)).filter(
      (one) => one.name !== name() && !held?.some((lock) => lock.name === `veglia-draft-${one.name}`),
    );
  }

  /** The newest draft that no tab has, or a blank one. */
  async function begin(): Promise<void> {
    for (const draft of await draftsOf(draftsBegin)) {
      if (await take(draft)) break;
    }
    if (!letGo) await beginAnew();
    await lookAside();
    ready.value = true;
  }
  async function change(to: () => Promise<void>): Promise<void> {
    await keeping;
    letGo?.();
    quiet = true;
    await to();
    quiet = false;
    await lookAside();
    await nextTick();
  }
  const forget = async (): Promise<void> => {
    await keeping;
    await dropDraft(name());
  };

  /** Written as it is typed, one write after the other: a reload in the next moment finds it. */
  watch(
    form,
    () => {
      if (!ready.value || quiet || kept()) return;
      const [at, blankNow, now] = [name(), isBlank(form), JSON.parse(JSON.stringify(form)) as unknown];
      keeping = (keeping ?? Promise.resolve()).then(() => (blankNow ? dropDraft(at) : keepDraft(at, now)));
    },
    { flush: 'sync' },
  );

  return {
    form,
    from,
    /** Begun and put aside, in no other tab. */
    aside,
    ready,
    begin,
    /** What is on the screen is checked in, or thrown away on purpose. */
    forget,
    /** A blank one; what was typed here waits among those put aside. */
    putAside: () => change(beginAnew),
    open: (draft: Draft) => change(async () => void ((await take(draft)) || (await beginAnew()))),
    end: () => letGo?.(),
  };
}
