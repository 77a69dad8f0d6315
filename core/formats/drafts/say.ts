import type { ReaderRule } from '../../reports/rules';
import type { Report } from '../../reports/report';

/** Says something of the question that is made. */
export type Say = (rule: ReaderRule, severity: Report['severity'], message: string, words?: string[]) => void;
