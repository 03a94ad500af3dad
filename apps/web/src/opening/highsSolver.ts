import type { MipAnswer, MipModel, SolveMip } from '@tempera/core/opening';

/** As much of the HiGHS package as the plan needs; the package itself is loaded by whoever has a solver to hand in. */
export interface HighsLike {
  createModel(data: object): {
    options: { set(name: string, value: boolean | number | string): unknown };
    info: { get(name: string): number | bigint };
    run(): { modelStatus: number };
    getSolution(): { colValue: ArrayLike<number> };
    dispose(): void;
  };
  constants: { modelStatus: { optimal: number; infeasible: number } };
}

/** HiGHS primal solution status: a feasible point is known. */
const FEASIBLE = 2;

/** HiGHS as the solver of the plan. */
export function solverOf(highs: HighsLike): SolveMip {
  return (model, timeLimitS) => {
    const solver = highs.createModel(dataOf(model));
    try {
      solver.options.set('output_flag', false);
      solver.options.set('time_limit', timeLimitS);
      const { modelStatus } = solver.run();
      const { optimal, infeasible } = highs.constants.modelStatus;
      if (modelStatus === infeasible) return { status: 'infeasible', columns: null, bound: Infinity };
      const found = Number(solver.info.get('primal_solution_status')) === FEASIBLE;
      const answer: MipAnswer = {
        status: modelStatus === optimal ? 'optimal' : 'outOfTime',
        columns: found ? solver.getSolution().colValue : null,
        bound: Number(solver.info.get('mip_dual_bound')),
      };
      return answer;
    } finally {
      solver.dispose();
    }
  };
}

function dataOf(model: MipModel): object {
  const { numCols, numRows, colCost, rowLower, rowUpper, starts, indices, values } = model;
  return {
    numCols,
    numRows,
    colCost,
    colLower: new Array<number>(numCols).fill(0),
    colUpper: new Array<number>(numCols).fill(1),
    rowLower,
    rowUpper,
    integrality: new Array<number>(numCols).fill(1),
    matrix: { format: 'csr', numRows, numCols, starts, indices, values },
  };
}
