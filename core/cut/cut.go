// Package cut says what to cut from which sheet for a card or for many: rectangles by
// straight cuts a trimmer can make, pieces of other outlines laid close, offcuts before
// whole sheets.
package cut

import (
	"context"

	"ochrestone/core/build"
	"ochrestone/core/depth"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
)

// Our own defaults, mm.
const (
	dieGap    = 1.5  // between pieces cut by dies or along outlines: a die is wider than its edge
	glueRoom  = 10.0 // left of a mat beneath what covers it, to glue that by, when its middle is cut out
	leastLeft = 40.0 // an offcut smaller than this each way is not worth keeping
	leastArea = 15.0 // smaller places than this each way no piece is looked for in
)

// Plan is what is cut from which sheets.
type Plan struct {
	Copies  int     `json:"copies"`
	Stocks  []Stock `json:"stocks" nullable:"false" doc:"by cardstock, in the order they are needed"`
	Passes  []Pass  `json:"passes" nullable:"false" doc:"runs through the machine"`
	By      string  `json:"by,omitempty" doc:"the machine they go through"`
	Runs    int     `json:"runs" doc:"how often it is run in all, there and back as two"`
	Counts  []Count `json:"counts" nullable:"false" doc:"what it takes beside paper"`
	One     int     `json:"one" doc:"whole sheets that as many cards take when each is cut by itself"`
	OneRuns int     `json:"oneRuns" doc:"how often the machine is run when each card is cut by itself"`
}

// Stock is what is cut from one cardstock.
type Stock struct {
	Stock   string   `json:"stock" doc:"cardstock id"`
	Name    string   `json:"name"`
	Colour  string   `json:"colour" doc:"#rrggbb"`
	Owned   bool     `json:"owned" doc:"it is in the stores"`
	Grain   string   `json:"grain,omitempty" doc:"how its fibres run"`
	Wants   []Want   `json:"wants" nullable:"false"`
	Sheets  []Sheet  `json:"sheets" nullable:"false" doc:"offcuts and middles of mats first"`
	Needs   int      `json:"needs" doc:"whole sheets it takes"`
	Has     int      `json:"has" doc:"whole sheets there are"`
	Used    float64  `json:"used" doc:"share of the whole sheets' area that becomes pieces, 0 to 1"`
	Lacks   []Lack   `json:"lacks" nullable:"false" doc:"what could not be laid, and why"`
	Taken   string   `json:"taken,omitempty" doc:"when its sheets were taken out of the stores for this run, RFC 3339"`
	StandIn *StandIn `json:"standIn,omitempty" doc:"where there are too few sheets: what comes nearest and is there"`
}

// Want is a piece that is cut so many times.
type Want struct {
	Card    string  `json:"card,omitempty" doc:"of this other card of the sitting"`
	Element string  `json:"element,omitempty"`
	Motif   string  `json:"motif,omitempty"`
	Way     string  `json:"way,omitempty" doc:"colourway"`
	Part    string  `json:"part,omitempty"`
	Name    string  `json:"name"`
	W       float64 `json:"w" doc:"mm"`
	H       float64 `json:"h" doc:"mm"`
	Each    int     `json:"each" doc:"for one card"`
	N       int     `json:"n" doc:"for all, spares with them"`
	Spares  int     `json:"spares" doc:"of those to spoil"`
	By      string  `json:"by" enum:"trimmer,die,scissors"`
	Fold    string  `json:"fold,omitempty" enum:"across,down" doc:"how its fold runs"`

	cut build.Cut
}

// Sheet is a sheet, an offcut or the middle of a mat, with what is cut from it.
type Sheet struct {
	W      float64 `json:"w" doc:"mm"`
	H      float64 `json:"h" doc:"mm"`
	Kind   string  `json:"kind" enum:"sheet,offcut,middle"`
	Of     string  `json:"of,omitempty" doc:"of a middle: the mat it is cut out of"`
	Placed []Place `json:"placed" nullable:"false"`
	Cuts   []Slice `json:"cuts" nullable:"false" doc:"straight cuts, in order"`
	Left   []Area  `json:"left" nullable:"false" doc:"offcuts worth keeping"`
}

// Place is where a piece is cut on a sheet.
type Place struct {
	Want int     `json:"want" doc:"which of the wants, from 0"`
	X    float64 `json:"x" doc:"its middle, mm"`
	Y    float64 `json:"y" doc:"mm"`
	Turn float64 `json:"turn" doc:"clockwise, degrees"`
	Copy int     `json:"copy" doc:"which of several alike, from 0"`
	Hand bool    `json:"hand,omitempty" doc:"laid by hand"`
	Path string  `json:"path" doc:"on the sheet, path data in mm"`
}

// Lack is what could not be laid.
type Lack struct {
	Want int    `json:"want"`
	N    int    `json:"n"`
	Why  string `json:"why"`
	Do   string `json:"do"`
}

// StandIn is a cardstock that comes near another.
type StandIn struct {
	Stock string  `json:"stock"`
	Name  string  `json:"name"`
	Diff  float64 `json:"diff" doc:"how far its colour lies off, CIEDE2000"`
	Has   int     `json:"has" doc:"whole sheets"`
}

// Job is a card that is cut for, so many times.
type Job struct {
	Build  *build.Build
	Stood  []depth.Stood // how it stands, for its pads; none: they are not counted
	Copies int
	Card   string // id of the card, where it is not the one the sitting is about
	Title  string // what that card is called
	// Spares says how many pieces of a layer to cut so that as many as wanted come out; none:
	// as many as wanted.
	Spares func(motif, way, part string, want int) int
}

// options say how a plan is made.
type options struct {
	tries    int
	write    measure.Writing
	progress func(float64)
	machine  *kit.Machine
	memory   *Memory
}

// Option changes how a plan is made.
type Option func(*options)

// Tries sets how many ways are tried after the usual ones; without it 4, fewer of many pieces.
func Tries(n int) Option { return func(o *options) { o.tries = n } }

// Write sets the units of sentences.
func Write(w measure.Writing) Option { return func(o *options) { o.write = w } }

// Progress is told the share of the work that is done.
func Progress(f func(float64)) Option { return func(o *options) { o.progress = f } }

// With sets the machine that dies go through; without it no runs are counted.
func With(m kit.Machine) Option { return func(o *options) { o.machine = &m } }

// Of lays out what all cards of a sitting take, pieces of several designs on the same
// sheets. Where ctx ends it gives the best found so far. Pieces laid by hand are those of the
// first job.
func Of(ctx context.Context, jobs []Job, opts ...Option) Plan {
	o := usual(opts)
	out := o.layOut(ctx, jobs)
	out.Counts = countsOf(jobs)
	for _, j := range jobs {
		n := max(1, j.Copies)
		out.Copies += n
		if len(jobs) == 1 && n == 1 {
			out.One, out.OneRuns = out.sheets(), out.Runs
			break
		}
		alone := o
		alone.tries, alone.progress = min(o.tries, 8), func(float64) {}
		j.Copies, j.Spares = 1, nil
		one := alone.layOut(ctx, []Job{j})
		out.One += n * one.sheets()
		out.OneRuns += n * one.Runs
	}
	return out
}

// sheets is how many whole sheets a plan takes in all.
func (p Plan) sheets() (n int) {
	for _, s := range p.Stocks {
		n += s.Needs
	}
	return n
}

// layOut lays out the pieces of all jobs, and sends them through the machine.
func (o options) layOut(ctx context.Context, jobs []Job) Plan {
	out := Plan{Stocks: []Stock{}, Passes: []Pass{}, Counts: []Count{}}
	g := Gathering{}
	for _, j := range jobs {
		g.Add(j)
	}
	if stocks := g.stocks(ctx, o); stocks != nil {
		out.Stocks = stocks
	}
	if o.machine != nil {
		out.Passes, out.By = Passes(ctx, out, jobs[0].Build.Stock, *o.machine), o.machine.Name
		out.Runs = Runs(out.Passes)
	}
	return out
}

// add adds a piece of a job to what is wanted of its cardstock; what is cut just the same for
// another lot of the same design is cut with it.
func (p *Plan) add(j Job, c build.Cut) {
	b := j.Build
	i := 0
	for i < len(p.Stocks) && p.Stocks[i].Stock != c.Stock {
		i++
	}
	if i == len(p.Stocks) {
		p.Stocks = append(p.Stocks, Stock{Stock: c.Stock, Name: b.Stock.PaperName(c.Stock), Colour: b.Stock.PaperColour(c.Stock).Hex(), Wants: []Want{}, Sheets: []Sheet{}, Lacks: []Lack{}})
	}
	n := max(1, j.Copies)
	w := Want{Card: j.Card, Element: c.ID.Element, Motif: c.Motif, Way: c.Way, Part: c.ID.Part, Name: c.Name, W: c.Size.W, H: c.Size.H, Each: c.N, N: c.N * n, By: string(c.By), Fold: string(c.Fold), cut: c}
	if j.Card != "" {
		w.Name = j.Title + ": " + w.Name
	}
	if j.Spares != nil && c.Motif != "" {
		if n := j.Spares(c.Motif, c.Way, c.ID.Part, w.N); n > w.N {
			w.Spares, w.N = n-w.N, n
		}
	}
	all := p.Stocks[i].Wants
	for k := range all {
		if o := &all[k]; o.Element == w.Element && o.Each == w.Each && o.Card == w.Card && alike(&o.cut, &c) {
			o.N += w.N
			o.Spares += w.Spares
			return
		}
	}
	p.Stocks[i].Wants = append(all, w)
}

// alike reports whether two pieces are cut just the same and are called the same.
func alike(a, b *build.Cut) bool {
	return a.Stock == b.Stock && a.Name == b.Name && a.By == b.By && a.Size == b.Size && a.Motif == b.Motif && a.Way == b.Way && a.ID.Part == b.ID.Part && a.Fold == b.Fold &&
		a.Hidden == b.Hidden && a.Margin == b.Margin && a.Outline.Same(b.Outline)
}
