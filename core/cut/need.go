package cut

import (
	"cmp"
	"context"
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"math"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/memory"
)

// Needed is one cardstock as Of lays it out for the jobs, and whether there are too few sheets
// of it. Where there are enough sheets
// however they are laid it is not laid out at all, and of the layout nothing but the cardstock's
// id is told.
func Needed(ctx context.Context, jobs []Job, stock string, opts ...Option) (Stock, bool) {
	o := usual(opts)
	p := Plan{}
	p.gather(jobs, stock)
	if len(p.Stocks) == 0 || len(jobs) == 0 {
		return Stock{Stock: stock}, false
	}
	s := laying{Stock: &p.Stocks[0], stock: jobs[0].Build.Stock, locks: jobs[0].Build.Card.Locks, o: o, each: 1}
	if paper, ok := s.stock.Paper(stock); ok && s.ample(*paper) {
		return Stock{Stock: stock}, false
	}
	work := func() (Stock, error) {
		s.lay(ctx)
		return *s.Stock, ctx.Err()
	}
	var laid Stock
	var err error
	if o.memory != nil {
		laid, err = o.memory.laid.Get(s.key(), work)
	} else {
		laid, err = work()
	}
	return laid, err == nil && laid.Needs > laid.Has
}

// Memory remembers layouts by everything they depend on. It is safe for use by several
// goroutines.
type Memory struct{ laid *memory.Of[[32]byte, Stock] }

// mostStocks is how many layouts are remembered.
const mostStocks = 400

// NewMemory returns an empty Memory.
func NewMemory() *Memory { return &Memory{memory.New[[32]byte, Stock](mostStocks)} }

// Remember keeps what Needed lays out, and asks there first.
func Remember(m *Memory) Option { return func(o *options) { o.memory = m } }

// key is everything that a layout of a cardstock depends on.
func (s *laying) key() (out [32]byte) {
	h := sha256.New()
	paper, _ := s.stock.Paper(s.Stock.Stock)
	_ = json.NewEncoder(h).Encode([]any{paper, s.stock.Papers, s.locks, s.o.tries, s.o.write.Length(1), s.Wants}) // a hash takes everything
	for _, w := range s.Wants {
		fmt.Fprintln(h, w.cut.Outline.Path(), w.cut.Margin, w.cut.Hidden, w.cut.Shows)
	}
	return [32]byte(h.Sum(nil))
}

// ample reports whether there are enough sheets of a cardstock however they are laid: one for
// each piece, or as many as it takes to lay their boxes in rows, where those fill no more than
// looselyFilled of them: any layout does as well.
func (s *laying) ample(p kit.Cardstock) bool {
	n := 0
	for _, w := range s.Wants {
		n += w.N
	}
	if n <= p.Sheets {
		return true
	}
	rows, area := s.inRows(p)
	return rows <= p.Sheets && area <= looselyFilled*float64(p.Sheets)*p.W*p.H
}

// looselyFilled is the share of the sheets' area up to which what lies in rows lies well within
// what a layout finds: at more it may now and then find a row less. Our own default.
const looselyFilled = 0.5

// inRows is how many whole sheets pieces take whose boxes are laid in rows, the highest first,
// what is trimmed apart from the rest, and the area of the boxes, mm²; more than there are of any
// where that cannot be said.
func (s *laying) inRows(p kit.Cardstock) (sheets int, area float64) {
	if p.W <= 0 || p.H <= 0 || slices.ContainsFunc(s.locks, func(l card.Lock) bool { return l.Stock == p.ID }) {
		return math.MaxInt, area
	}
	s.Grain = p.Grain
	type box struct {
		w, h float64
		n    int
	}
	var trimmed, others []box
	for _, w := range s.Wants {
		b := box{w.W, w.H, w.N}
		if w.By == string(build.Trimmer) {
			if along := s.along(w.cut); along != nil && *along {
				b.w, b.h = b.h, b.w
			}
		} else {
			gap := dieGap + 2*w.cut.Margin
			b.w, b.h = (math.Ceil((b.w+gap)/cell)+1)*cell, (math.Ceil((b.h+gap)/cell)+1)*cell
		}
		if b.w > p.W || b.h > p.H {
			return math.MaxInt, area
		}
		if w.By == string(build.Trimmer) {
			trimmed = append(trimmed, b)
		} else {
			others = append(others, b)
		}
	}
	for _, all := range [][]box{trimmed, others} {
		slices.SortStableFunc(all, func(a, b box) int { return cmp.Compare(b.h, a.h) })
		x, y, row := p.W, p.H, 0.0 // the first opens a sheet
		for _, b := range all {
			area += float64(b.n) * b.w * b.h
			for range b.n {
				if x+b.w > p.W {
					x, y, row = 0, y+row, b.h
					if y+row > p.H {
						y, sheets = 0, sheets+1
					}
				}
				x += b.w
			}
		}
	}
	return sheets, area
}

// gather adds what the jobs want, of one cardstock or of all.
func (p *Plan) gather(jobs []Job, only string) {
	for _, j := range jobs {
		var all []build.Cut
		for _, c := range j.Build.Cuts() {
			if only != "" && c.Stock != only {
				continue
			}
			i := 0
			for i < len(all) && !alike(&all[i], &c) {
				i++
			}
			if i < len(all) {
				all[i].N += c.N
				continue
			}
			all = append(all, c)
		}
		for _, c := range all {
			p.add(j, c)
		}
	}
}

// usual are the options, with those that are not given.
func usual(opts []Option) options {
	o := options{tries: fewTries, progress: func(float64) {}, write: measure.Writing{}}
	for _, f := range opts {
		f(&o)
	}
	return o
}

// Orders that are tried beside the usual ones. On 18 sittings of the demo's cards, of 4 to 40
// cards, 60 more found no sheet less than 4 or none did, so few are made: a layout comes out
// the same on any machine, and soon.
const (
	fewTries = 4
	mostLaid = 240 // pieces laid in all while they are made
)

// triesFor is how many further orders are tried for so many pieces.
func (o options) triesFor(pieces int) int { return min(o.tries, mostLaid/max(1, pieces)) }
