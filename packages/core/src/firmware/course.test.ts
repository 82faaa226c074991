import { expect, test } from '@jest/globals';
import { flashCourse } from './course.ts';
import { foldFlash, nextFlashStep } from './session.ts';
import { brokenOffCases, coldCases, sessionCases } from './sessionCases.ts';

test.each([...sessionCases, ...brokenOffCases, ...coldCases].map((one) => [one.name, one] as const))(
  '%s: nothing stands as done behind what is due',
  (_, { did }) => {
    const session = foldFlash('one', did);
    if (!session) throw new Error('never opened');
    const course = flashCourse(session);
    const due = nextFlashStep(session);
    const at = course.findIndex(({ state }) => state === 'due');
    // A good chip of the type, and a change of plan, are no steps of the course.
    if (due && due.step !== 'setting' && due.step !== 'opened' && due.of !== 'good-one' && due.step !== 'rebuilt')
      expect(at).toBeGreaterThanOrEqual(0);
    if (at >= 0)
      expect(course.slice(0, at).map(({ state, aim }) => `${aim.step} ${state}`)).toEqual(
        course.slice(0, at).map(({ aim }) => `${aim.step} done`),
      );
    if (at >= 0)
      expect(
        course
          .slice(at + 1)
          .filter(({ state, aim }) => state === 'done' && aim.step !== 'chosen')
          .map(({ aim }) => aim.step),
      ).toEqual([]);
  },
);
