// Shared controls: React Aria for behaviour, styled-components for the look.
export * from './controls.tsx';
export * from './quantity.tsx';
export * from './marks.tsx';
export * from './layout.tsx';
export * from './problems.tsx';
export * from './menu.tsx';
export * from './section.tsx';
export * from './table.tsx';
export * from './chart.ts';
export * from './tabs.tsx';
export * from './pop.tsx';
export * from './name.tsx';
export * from './dialog.tsx';
export * from './same-do.ts';
