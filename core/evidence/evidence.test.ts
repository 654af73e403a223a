import { describe, expect, it } from 'vitest';
import * as core from '../index.js';
import { decisive, FORMULAS, formulaInWords, GRADES, makeFigure, supporting, weakestGrade } from './index.js';

describe('figures', () => {
  it('take the weakest grade among the inputs that decide', () => {
    const figure = makeFigure({
      formula: 'arealDose',
      value: 1,
      unit: 'J/mm²',
      inputs: [decisive('power', 'measured'), decisive('speed', 'stated'), supporting('prior', 'guess')],
    });
    expect(figure.grade).toBe('stated');
    expect(weakestGrade(['measured', 'proved'])).toBe('proved');
    expect(weakestGrade([])).toBe('guess');
    GRADES.forEach((grade, i) => expect(weakestGrade([grade, GRADES[0]!])).toBe(GRADES[i]));
  });

  it('name functions of the core, so that a number leads to its code', () => {
    for (const name of Object.keys(FORMULAS)) expect(core, name).toHaveProperty(name);
    expect(formulaInWords('arealDose')).toContain('speed');
    expect(formulaInWords('somethingLater')).toBe('somethingLater');
  });
});
