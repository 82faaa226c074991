export { bestPlan, lateWeight, planDay, type DayPlan, type PlannedSet, type PlannedStep, type Slot } from './schedule.ts';
export { minutesUntil } from './day.ts';
