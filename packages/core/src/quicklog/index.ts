export { readQuick } from './context.ts';
export { readQuickLine, type QuickBody, type QuickContext, type QuickItem, type QuickReading } from './quicklog.ts';
