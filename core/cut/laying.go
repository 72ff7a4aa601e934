package cut

import (
	"context"
	"fmt"
	"math"
	"slices"

	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
)

// laying lays out one cardstock.
type laying struct {
	*Stock
	stock       look.Stock
	locks       []card.Lock
	o           options
	share, each float64
}

func (s *laying) lay(ctx context.Context) {
	size, paper := measure.Letter, kit.Cardstock{}
	if p, ok := s.stock.Paper(s.Stock.Stock); ok {
		paper, s.Owned, s.Has, s.Grain = *p, true, p.Sheets, p.Grain
		if p.W > 0 && p.H > 0 {
			size = measure.Size{W: p.W, H: p.H}
		}
	}
	free := paper.Kind != kit.PaperPatterned // a pattern stays upright
	var bins []field
	add := func(sheet Sheet, cost float64) {
		bins = append(bins, field{Area{W: sheet.W, H: sheet.H, Bin: len(s.Sheets)}, cost * sheet.W * sheet.H / (size.W * size.H)})
		s.Sheets = append(s.Sheets, sheet)
	}
	for _, f := range slices.SortedFunc(slices.Values(paper.Offcuts), func(a, b kit.Offcut) int { return int(math.Copysign(1, a.W*a.H-b.W*b.H)) }) {
		for range f.Count() {
			add(Sheet{W: f.W, H: f.H, Kind: "offcut"}, offcutCost)
		}
	}
	for _, w := range s.Wants {
		if m, ok := middle(w); ok {
			for range w.N {
				add(Sheet{W: m.W, H: m.H, Kind: "middle", Of: w.Name}, middleCost)
			}
		}
	}
	// Straight ones first.
	var rects []Rect
	var whose []int
	for i, w := range s.Wants {
		if w.By != string(build.Trimmer) {
			continue
		}
		r := Rect{w.W, w.H, free}
		if along := s.along(w.cut); along != nil {
			if *along {
				r.W, r.H = r.H, r.W
			}
			r.Turn = false
		}
		if !s.takes(size, r) && !slices.ContainsFunc(bins, func(b field) bool { return s.takes(measure.Size{W: b.W, H: b.H}, r) }) {
			s.tooLarge(i, w.N, size, r)
			continue
		}
		for range w.N {
			rects, whose = append(rects, r), append(whose, i)
		}
	}
	fixed, sheets := s.rectsByHand(rects, whose, size)
	var rest []Rect
	var restWhose []int
	for k, r := range rects {
		if _, ok := fixed[k]; !ok {
			rest, restWhose = append(rest, r), append(restWhose, k)
		}
	}
	for range len(rects) {
		n := len(s.Sheets)
		s.Sheets = append(s.Sheets, Sheet{W: size.W, H: size.H, Kind: "sheet"})
		if at := slices.IndexFunc(sheets, func(h handSheet) bool { return h.number == n-s.first() }); at >= 0 {
			for _, c := range sheets[at].cuts {
				c.Bin = n
				s.Sheets[n].Cuts = append(s.Sheets[n].Cuts, c)
			}
			for _, a := range sheets[at].free {
				a.Bin = n
				bins = append(bins, field{a, 0.002 * a.W * a.H / (size.W * size.H)})
			}
			for k, spot := range sheets[at].laid {
				s.rect(k, whose, rects, n, spot, true)
			}
			continue
		}
		bins = append(bins, field{Area{W: size.W, H: size.H, Bin: n}, 1})
	}
	got := Guillotine(ctx, rest, binsOf(bins), 0, s.o.triesFor(len(rest))*4, 1)
	s.o.progress(s.share + s.each*0.3)
	for k, spot := range got.Spots {
		if spot.Bin >= 0 {
			at := bins[spot.Bin]
			spot.X, spot.Y, spot.Bin = spot.X+at.X, spot.Y+at.Y, at.Bin
		}
		s.rect(restWhose[k], whose, rects, spot.Bin, spot, false)
	}
	for _, c := range got.Cuts {
		at := bins[c.Bin]
		c.X, c.Y, c.Bin = c.X+at.X, c.Y+at.Y, at.Bin
		s.Sheets[c.Bin].Cuts = append(s.Sheets[c.Bin].Cuts, c)
	}
	for i := range got.Left {
		l := &got.Left[i]
		at := bins[l.Bin]
		l.X, l.Y, l.Bin = l.X+at.X, l.Y+at.Y, at.Bin
	}
	s.nest(ctx, got.Left, size, free)
	s.sum(size)
}

// What using up an offcut, or cutting out the middle of a mat, costs beside a fresh sheet.
const (
	offcutCost = 0.01
	middleCost = 0.02
)

// field is where something may be cut: a rectangle of a sheet, and what using it costs.
type field struct {
	Area
	cost float64
}

func binsOf(all []field) []Bin {
	out := make([]Bin, len(all))
	for i, f := range all {
		out[i] = Bin{f.W, f.H, f.cost}
	}
	return out
}

// middle is the part of a mat that is hidden and may be cut out of it: the margin that shows,
// and room to glue what covers it by, stay.
func middle(w Want) (measure.Size, bool) {
	if !w.cut.Hidden || w.By != string(build.Trimmer) {
		return measure.Size{}, false
	}
	edge := w.cut.Shows + glueRoom
	m := measure.Size{W: w.W - 2*edge, H: w.H - 2*edge}
	return m, min(m.W, m.H) >= leastLeft
}

// first is the first fresh sheet, by its place in the list.
func (s *laying) first() int {
	if i := slices.IndexFunc(s.Sheets, func(sh Sheet) bool { return sh.Kind == "sheet" }); i >= 0 {
		return i
	}
	return len(s.Sheets)
}

// rect lays a rectangle on a sheet.
func (s *laying) rect(k int, whose []int, rects []Rect, sheet int, spot Spot, hand bool) {
	w := s.Wants[whose[k]]
	box, turn := rects[k], 0.0
	if spot.Turned {
		box.W, box.H = box.H, box.W
	}
	if math.Abs(box.W-w.W) > 1e-6 {
		turn = 90
	}
	s.put(sheet, Place{Want: whose[k], X: spot.X + box.W/2, Y: spot.Y + box.H/2, Turn: turn, Copy: copyOf(whose, k), Hand: hand}, w.cut.Outline)
}

// along is whether a piece with a fold has to lie a quarter turned for its fold to run with
// the grain; nil where nobody knows the grain, or there is no fold.
func (s *laying) along(c build.Cut) *bool {
	if c.Fold == build.NoWay || s.Grain == "" {
		return nil
	}
	turned := string(c.Fold) != s.Grain
	return &turned
}

func (s *laying) takes(size measure.Size, r Rect) bool {
	return r.W <= size.W+eps && r.H <= size.H+eps || r.Turn && r.H <= size.W+eps && r.W <= size.H+eps
}

func (s *laying) tooLarge(want, n int, size measure.Size, r Rect) {
	why := fmt.Sprintf("It is %s × %s, a sheet %s × %s.", s.o.write.Length(r.W), s.o.write.Length(r.H), s.o.write.Length(size.W), s.o.write.Length(size.H))
	do := "Take a larger sheet, or make it of two pieces with a joint that something covers."
	if !r.Turn && s.along(s.Wants[want].cut) != nil && r.H <= size.W+eps && r.W <= size.H+eps {
		do = "Against the grain it would go: its fold will crack there. Or take a larger sheet."
	}
	s.Lacks = append(s.Lacks, Lack{want, n, why, do})
}

// nest lays pieces of other outlines: into what is left of sheets in use first, then into
// offcuts, then into the hidden middles of mats, which have to be cut out, and at last onto
// fresh sheets.
func (s *laying) nest(ctx context.Context, left []Area, size measure.Size, free bool) {
	type place struct {
		Area
		sheet int
	}
	var places []place
	var bins []Bin
	in := func(a Area, sheet int, cost float64) {
		if min(a.W, a.H) >= leastArea {
			places = append(places, place{a, sheet})
			bins = append(bins, Bin{a.W, a.H, cost * a.W * a.H / (size.W * size.H)})
		}
	}
	for _, a := range left {
		if s.Sheets[a.Bin].Kind == "sheet" {
			in(a, a.Bin, 0.002)
		}
	}
	for _, of := range []struct {
		kind string
		cost float64
	}{{"offcut", offcutCost}, {"middle", middleCost}} {
		for i, sh := range s.Sheets {
			if sh.Kind == of.kind && len(sh.Placed) == 0 {
				in(Area{W: sh.W, H: sh.H}, i, of.cost)
			}
		}
		for _, a := range left {
			if sh := s.Sheets[a.Bin]; sh.Kind == of.kind && len(sh.Placed) > 0 {
				in(a, a.Bin, of.cost)
			}
		}
	}
	var parts []Part
	var whose []int
	for i, w := range s.Wants {
		if w.By == string(build.Trimmer) {
			continue
		}
		p := Part{Outline: w.cut.Outline, Gap: dieGap + 2*w.cut.Margin, Turns: []float64{0, 180, 90, 270}}
		if !free {
			p.Turns = nil
		}
		fits := func(b Bin) bool {
			return w.W+p.Gap <= b.W && w.H+p.Gap <= b.H || free && w.H+p.Gap <= b.W && w.W+p.Gap <= b.H
		}
		if !fits(Bin{size.W, size.H, 1}) && !slices.ContainsFunc(bins, fits) {
			s.tooLarge(i, w.N, size, Rect{w.W, w.H, free})
			continue
		}
		for range w.N {
			parts, whose = append(parts, p), append(whose, i)
		}
	}
	if len(parts) == 0 {
		s.keep(left)
		return
	}
	// As many fresh sheets as it could ever take: one for each piece.
	for range len(parts) {
		places = append(places, place{Area{W: size.W, H: size.H}, len(s.Sheets)})
		bins = append(bins, Bin{size.W, size.H, 1})
		s.Sheets = append(s.Sheets, Sheet{W: size.W, H: size.H, Kind: "sheet"})
	}
	fixed := s.byHand(whose, len(places)-len(parts), len(parts))
	laid, _ := Nest(ctx, parts, bins, fixed, s.o.triesFor(len(parts)), 1, func(x float64) { s.o.progress(s.share + s.each*(0.3+0.7*x)) })
	low := map[int]float64{} // by place: how far down it is used
	for k, l := range laid {
		_, hand := fixed[k]
		if l.Bin < 0 {
			why, do := "There is no room for it.", "Add sheets in the stores."
			if hand {
				why, do = "It was laid by hand over another, or off its sheet.", "Drag it clear, or let it lie as it comes."
			}
			s.Lacks = append(s.Lacks, Lack{whose[k], 1, why, do})
			continue
		}
		at := places[l.Bin]
		s.put(at.sheet, Place{Want: whose[k], X: at.X + l.X, Y: at.Y + l.Y, Turn: l.Turn, Copy: copyOf(whose, k), Hand: hand}, parts[k].Outline)
		low[l.Bin] = max(low[l.Bin], l.Y+laidDown(parts[k], Laid{Turn: l.Turn}).Bounds().Max.Y+parts[k].Gap/2)
	}
	var still []Area
	for n, p := range places {
		a := p.Area
		a.Bin = p.sheet
		if l, ok := low[n]; ok {
			a.Y, a.H = a.Y+l, a.H-l
		}
		still = append(still, a)
	}
	s.keep(still)
}

// copyOf is which of several alike a part is.
func copyOf(whose []int, k int) int {
	n := 0
	for i := k - 1; i >= 0 && whose[i] == whose[k]; i-- {
		n++
	}
	return n
}

// byHand are the parts that lie where the person put them: fresh sheets begin at a bin.
func (s *laying) byHand(whose []int, fresh, sheets int) map[int]Laid {
	out := map[int]Laid{}
	for _, l := range s.locks {
		if l.Stock != s.Stock.Stock || l.Sheet >= sheets {
			continue
		}
		for k, i := range whose {
			w := s.Wants[i]
			if w.Card == "" && w.Element == l.Element && w.Motif == l.Motif && w.Way == l.Way && w.Part == l.Part && copyOf(whose, k) == l.Copy {
				out[k] = Laid{fresh + l.Sheet, l.X, l.Y, l.Turn}
				break
			}
		}
	}
	return out
}

// keep notes what is left of sheets in use and worth keeping.
func (s *laying) keep(left []Area) {
	for _, a := range left {
		sh := &s.Sheets[a.Bin]
		if min(a.W, a.H) >= leastLeft && sh.Kind != "middle" && len(sh.Placed) > 0 {
			sh.Left = append(sh.Left, a)
		}
	}
}

func (s *laying) put(sheet int, p Place, g shape.Region) {
	if sheet < 0 {
		s.Lacks = append(s.Lacks, Lack{p.Want, 1, "There is no room for it.", "Add sheets in the stores."})
		return
	}
	p.Path = g.Turn(p.Turn, shape.Point{}).Move(shape.Point{X: p.X, Y: p.Y}).Path()
	s.Sheets[sheet].Placed = append(s.Sheets[sheet].Placed, p)
}

// laidDown is a part as it lies.
func laidDown(p Part, l Laid) shape.Region {
	return p.Outline.Turn(l.Turn, shape.Point{}).Move(shape.Point{X: l.X, Y: l.Y})
}

// sum drops sheets that are not used, counts the rest, and looks for what stands in.
func (s *laying) sum(size measure.Size) {
	pieces := 0.0
	s.Sheets = slices.DeleteFunc(s.Sheets, func(sh Sheet) bool { return len(sh.Placed) == 0 })
	for i := range s.Sheets {
		sh := &s.Sheets[i]
		if sh.Cuts == nil {
			sh.Cuts = []Slice{}
		}
		if sh.Left == nil {
			sh.Left = []Area{}
		}
		if sh.Kind != "sheet" {
			continue
		}
		s.Needs++
		for _, p := range sh.Placed {
			pieces += s.Wants[p.Want].cut.Outline.Area()
		}
	}
	if s.Needs > 0 {
		s.Used = pieces / (float64(s.Needs) * size.W * size.H)
	}
	merged := s.Lacks[:0]
	for _, l := range s.Lacks {
		if i := slices.IndexFunc(merged, func(o Lack) bool { return o.Want == l.Want && o.Why == l.Why }); i >= 0 {
			merged[i].N += l.N
			continue
		}
		merged = append(merged, l)
	}
	s.Lacks = merged
	if s.Needs > s.Has {
		s.StandIn = s.standIn()
	}
}

// standIn is the cardstock of the same sort, about as heavy, that comes nearest in colour
// and of which there is enough; nil where there is none.
func (s *laying) standIn() *StandIn {
	var best *StandIn
	mine, ok := s.stock.Paper(s.Stock.Stock)
	for _, p := range s.stock.Papers {
		if p.ID == s.Stock.Stock || p.Away || p.Sheets < s.Needs || ok && (p.Kind != mine.Kind || p.GSM < 0.7*mine.GSM || p.GSM > 1.4*mine.GSM) {
			continue
		}
		d := colour.Difference(s.stock.PaperColour(p.ID).Lab(), s.stock.PaperColour(s.Stock.Stock).Lab())
		if best == nil || d < best.Diff {
			best = &StandIn{p.ID, p.Name, d, p.Sheets}
		}
	}
	return best
}
