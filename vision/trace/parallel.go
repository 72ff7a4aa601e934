package trace

import (
	"runtime"

	"ochrestone/core/together"
)

// parallelRows calls f for 0 to n-1 on all processors, each taking every so many.
func parallelRows(n int, f func(int)) {
	p := runtime.GOMAXPROCS(0)
	together.By(p, func(k int) {
		for i := k; i < n; i += p {
			f(i)
		}
	})
}
