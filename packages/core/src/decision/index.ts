export { grossSaving, planRepairs } from './repairCost.ts';
export type { RepairModel, RepairOption, RepairPlan, TestOption } from './repairCost.ts';
