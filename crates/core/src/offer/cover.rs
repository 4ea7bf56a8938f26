//! The smallest, cheapest or most valuable set: an integer program over who keeps what, solved by branch and bound (microlp). What rows of
//! linear constraints cannot say is asked of the evaluation, and a set that it turns down is ruled out.

use super::keepers::{Demand, Keepers};
use crate::file::Fault;
use crate::work::Patience;
use microlp::{ComparisonOp, LinearExpr, OptimizationDirection, Problem, SolveOptions, Variable};

/// What is sought: the set that meets all that is required; of those the one whose wishes weigh most; of those the one that costs least.
#[derive(Clone, Default)]
pub(super) struct Goal {
    /// Demands that must be met, by place.
    pub required: Vec<usize>,
    /// Demands that are met where that can be, with what each weighs.
    pub wished: Vec<(usize, f64)>,
    /// How many cameras it may be, at most.
    pub most: Option<usize>,
}

/// What there is to choose from and what it costs.
pub(super) struct Cover<'a> {
    pub keepers: &'a Keepers<'a>,
    pub demands: &'a [Demand],
    /// What each choice costs, none of it negative; what has no price, infinity, cannot be taken.
    pub costs: Vec<f64>,
    /// Of each of these only one can be taken: the models that may hang at one spot.
    pub exclusive: Vec<Vec<usize>>,
    /// How many nodes the search looks at, at most; without a limit it proves its answer.
    pub most_nodes: Option<u64>,
}

/// A set that was found.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Found {
    /// The choices.
    pub chosen: Vec<usize>,
    /// The wished demands that it meets.
    pub met: Vec<usize>,
    /// What it costs.
    pub costs: f64,
    /// How far from the best it may be, a share of what was sought; 0 where it is proved.
    pub gap: f64,
}

/// So many sets are ruled out, one by one.
const MOST_CUTS: usize = 400;
/// A search that ends at this share is proved.
const PROVED: f64 = 1e-6;

/// A set that the evaluation turned down for a promise.
struct Cut {
    demand: usize,
    taken: Vec<usize>,
    left: Vec<usize>,
}

impl Cover<'_> {
    /// The best set.
    ///
    /// # Errors
    /// Where there is none, or none was found in the time that is allowed.
    pub fn best(&self, goal: &Goal, patience: &Patience) -> Result<Found, Fault> {
        let mut cuts: Vec<Cut> = Vec::new();
        for _ in 0..MOST_CUTS {
            patience.check(|| "the search takes longer than is allowed here".to_owned())?;
            let found = self.search(goal, &cuts)?;
            let asked = goal.required.iter().chain(&found.met).copied();
            let turned_down = asked.filter(|demand| self.demands[*demand].is_promise).find(|demand| {
                let Demand { target, level, .. } = self.demands[*demand];
                !self.keepers.keep(target, level, &found.chosen)
            });
            let Some(demand) = turned_down else { return Ok(found) };
            let concerned = self.demands[demand].concerned.iter().copied();
            let (taken, left) = concerned.partition(|choice| found.chosen.contains(choice));
            cuts.push(Cut { demand, taken, left });
        }
        Err(no_answer())
    }

    fn search(&self, goal: &Goal, cuts: &[Cut]) -> Result<Found, Fault> {
        let known = self.costs.iter().copied().filter(|cost| cost.is_finite());
        let scale = known.fold(0.0, f64::max).max(f64::MIN_POSITIVE);
        let weight = goal.wished.iter().map(|(_, weight)| weight).sum::<f64>().max(f64::MIN_POSITIVE);
        // Beside wishes costs only part equals: all of them together count for less than the least wish.
        let least = goal.wished.iter().map(|(_, weight)| *weight).fold(f64::INFINITY, f64::min);
        let aside = if goal.wished.is_empty() { 1.0 } else { 0.4 * least / weight / self.costs.len().max(1) as f64 };
        let mut problem = Problem::new(OptimizationDirection::Minimize);
        let take: Vec<Variable> = self
            .costs
            .iter()
            .map(|cost| {
                if cost.is_finite() {
                    problem.add_binary_var(aside * cost / scale)
                } else {
                    problem.add_var(0.0, (0.0, 0.0))
                }
            })
            .collect();
        let mut keep: Vec<Option<Variable>> = vec![None; self.demands.len()];
        for (demand, of) in &goal.wished {
            keep[*demand] = Some(problem.add_binary_var(-of / weight));
        }
        let mut program = Program { problem, take, keep };
        for set in self.exclusive.iter().filter(|set| set.len() > 1) {
            program.at_most(set.iter().map(|choice| (program.take[*choice], 1.0)).collect(), 1.0);
        }
        if let Some(most) = goal.most {
            program.at_most(program.take.iter().map(|variable| (*variable, 1.0)).collect(), most as f64);
        }
        let groups = self.keepers.fails_with();
        for place in goal.required.iter().copied().chain(goal.wished.iter().map(|(demand, _)| *demand)) {
            program.demand(place, &self.demands[place], &groups);
        }
        for cut in cuts {
            program.rule_out(cut);
        }
        let solved = program.problem.solve_with(self.options());
        let solution = solved.ok().and_then(|outcome| outcome.into_solution().ok()).ok_or_else(no_answer)?;
        let holds = |variable: &Variable| solution.var_value(*variable) > 0.5;
        let chosen: Vec<usize> = (0..self.costs.len()).filter(|choice| holds(&program.take[*choice])).collect();
        let met = (0..self.demands.len()).filter(|demand| program.keep[*demand].as_ref().is_some_and(holds)).collect();
        // What is not known is not proved.
        let gap = solution.gap().unwrap_or(1.0).abs();
        let costs: f64 = chosen.iter().map(|choice| self.costs[*choice]).sum();
        Ok(Found { chosen, met, costs, gap: if gap <= PROVED { 0.0 } else { gap } })
    }

    fn options(&self) -> SolveOptions {
        let mut options = SolveOptions::default();
        options.node_limit = self.most_nodes;
        options.mip_gap = PROVED;
        options
    }
}

struct Program {
    problem: Problem,
    take: Vec<Variable>,
    /// Whether a promise is kept, where that may be chosen.
    keep: Vec<Option<Variable>>,
}

impl Program {
    fn at_most(&mut self, terms: Vec<(Variable, f64)>, most: f64) {
        self.problem.add_constraint(terms.into_iter().collect::<LinearExpr>(), ComparisonOp::Le, most);
    }

    /// Terms that reach a figure, or, for a promise that may be given up, reach it where it is kept.
    fn reach(&mut self, mut terms: Vec<(Variable, f64)>, demand: usize, least: f64, otherwise: f64) {
        let mut right = least;
        if let Some(keep) = self.keep[demand] {
            terms.push((keep, otherwise - least));
            right = otherwise;
        }
        self.problem.add_constraint(terms.into_iter().collect::<LinearExpr>(), ComparisonOp::Ge, right);
    }

    /// Every row of a promise holds as many that don't fail together as are wanted.
    fn demand(&mut self, place: usize, demand: &Demand, groups: &[usize]) {
        for row in &demand.rows {
            let mut terms: Vec<(Variable, f64)> = Vec::with_capacity(row.len());
            let mut left: Vec<usize> = row.clone();
            while let Some(first) = left.first().copied() {
                let (together, others): (Vec<usize>, Vec<usize>) = left
                    .into_iter()
                    .partition(|choice| demand.wanted > 1 && groups[*choice] == groups[first] || *choice == first);
                left = others;
                if together.len() == 1 {
                    terms.push((self.take[first], 1.0));
                } else {
                    // One of those that fail together counts, however many there are.
                    let one = self.problem.add_var(0.0, (0.0, 1.0));
                    let mut expr: Vec<(Variable, f64)> =
                        together.iter().map(|choice| (self.take[*choice], 1.0)).collect();
                    expr.push((one, -1.0));
                    self.problem.add_constraint(expr.into_iter().collect::<LinearExpr>(), ComparisonOp::Ge, 0.0);
                    terms.push((one, 1.0));
                }
            }
            self.reach(terms, place, demand.wanted as f64, 0.0);
        }
    }

    /// A set that does not keep a promise: something of what has to do with it must be otherwise.
    fn rule_out(&mut self, cut: &Cut) {
        let mut terms: Vec<(Variable, f64)> = cut.left.iter().map(|choice| (self.take[*choice], 1.0)).collect();
        terms.extend(cut.taken.iter().map(|choice| (self.take[*choice], -1.0)));
        let taken = cut.taken.len() as f64;
        self.reach(terms, cut.demand, 1.0 - taken, -taken);
    }
}

fn no_answer() -> Fault {
    Fault::new("", "no set of cameras was found that does it")
}
