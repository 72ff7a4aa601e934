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

// Ahead begins something on the side and gives what waits for it. A panic in it is raised again where
// it is waited for, as *Panic.
func Ahead[T any](f func() T) (wait func() T) {
	type done struct {
		of  T
		bad *Panic
	}
	got := make(chan done, 1)
	go func() {
		var d done
		defer func() {
			if v := recover(); v != nil {
				d.bad = &Panic{v, debug.Stack()}
			}
			got <- d
		}()
		d.of = f()
	}()
	return sync.OnceValue(func() T {
		d := <-got
		if d.bad != nil {
			panic(d.bad)
		}
		return d.of
	})
}
