package plan_test

import (
	"ochrestone/core/plan"
	"ochrestone/tools/seeded"
)

// A case of this package is a whole card, planned several times.
func init() { seeded.Few(35) }

// warm is the planner of all tests that do not ask how planners remember: what it has worked out
// for one of them it need not work out for another. That it makes the same plans as one that
// knows nothing is a test of its own.
var warm = plan.NewPlanner()
