package trace

import (
	"runtime"
	"sync"
)

// parallelRows calls f for 0 to n-1 on all processors.
func parallelRows(n int, f func(int)) {
	var wg sync.WaitGroup
	p := runtime.GOMAXPROCS(0)
	for k := range p {
		wg.Go(func() {
			for i := k; i < n; i += p {
				f(i)
			}
		})
	}
	wg.Wait()
}
