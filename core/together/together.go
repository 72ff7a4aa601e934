// Package together does things side by side on all processors.
package together

import (
	"fmt"
	"runtime"
	"runtime/debug"
	"sync"
	"sync/atomic"
)

// Panic is a panic that happened on the side, with where.
type Panic struct {
	Value any
	Stack []byte
}

func (p *Panic) Error() string { return fmt.Sprintf("%v\n%s", p.Value, p.Stack) }

// By calls f for 0 to n-1, as many at a time as there are processors, and comes
// back when all are done. A panic in any of them is raised again here, as *Panic,
// where the caller can recover it: on the side it would end the whole program.
func By(n int, f func(i int)) {
	var next atomic.Int64
	var bad atomic.Pointer[Panic]
	var wg sync.WaitGroup
	for range min(n, runtime.GOMAXPROCS(0)) {
		wg.Go(func() {
			defer func() {
				if v := recover(); v != nil {
					bad.CompareAndSwap(nil, &Panic{v, debug.Stack()})
				}
			}()
			for bad.Load() == nil {
				i := int(next.Add(1)) - 1
				if i >= n {
					return
				}
				f(i)
			}
		})
	}
	wg.Wait()
	if p := bad.Load(); p != nil {
		panic(p)
	}
}
