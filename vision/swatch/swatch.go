// Package swatch reads swatch sheets: pages of the measuring mat whose field
// holds a grid of cells, each filled by hand with one ink. Colours are read
// against the paper beside each cell, so that neither the lamp nor its fall
// over the page counts.
package swatch

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"ochrestone/core/colour"
	"ochrestone/core/shape"
	"ochrestone/vision/mat"
	"ochrestone/vision/picture"
)

// Grid is the cells of a sheet, in mm from the corner of the mat's field.
type Grid struct {
	Across, Down int
	StepX, StepY float64
	Left, Top    float64
	W, H         float64 // of a cell's box
}

// For is the grid on a mat.
func For(l mat.Layout) Grid {
	g := Grid{Across: 8, Down: 12, W: 15.5, H: 11}
	g.StepX, g.StepY = l.Field.W()/float64(g.Across), l.Field.H()/float64(g.Down)
	g.Left, g.Top = (g.StepX-g.W)/2, 2.2
	return g
}

// Cells is how many cells a sheet has.
func (g Grid) Cells() int { return g.Across * g.Down }

// Box is the box of a cell, in reading order.
func (g Grid) Box(i int) shape.Box {
	at := shape.Point{X: g.Left + float64(i%g.Across)*g.StepX, Y: g.Top + float64(i/g.Across)*g.StepY}
	return shape.Box{Min: at, Max: at.Add(shape.Point{X: g.W, Y: g.H})}
}

// Trouble is what is wrong with a cell.
type Trouble string

// Troubles of a cell.
const (
	None   Trouble = ""
	Empty  Trouble = "it is empty"
	Half   Trouble = "it is only half filled"
	Over   Trouble = "it is filled over its edge"
	Shadow Trouble = "a shadow lies across it"
	Unlike Trouble = "it looks unlike this ink; is it in the right cell?"
	Bright Trouble = "the paper round it is as bright as the picture can show; take it darker"
	Patchy Trouble = "it is too uneven for one colour"
	Edge   Trouble = "the edge of a shadow lies across it"
	Late   Trouble = "it looks like the ink of the cell before it, and so do the others: were they filled one cell late?"
	Early  Trouble = "it looks like the ink of the cell after it, and so do the others: were they filled one cell early?"
	Swap   Trouble = "it looks like the ink of another cell, and that one like this: were the two swapped?"
	Other  Trouble = "few cells look like the inks of this sheet: is it another one?"
)

// Reading is one cell read.
type Reading struct {
	Cell    int
	Colour  colour.Linear // on the paper, as by the light the paper's colour was given for
	Spread  float64       // how uneven it is: standard deviation of its lightness
	Trouble Trouble
	Usable  bool    // the colour may be kept
	With    int     // of a swap: the other cell
	Sure    float64 // CIEDE2000 within which the colour lies, 95 of 100
}

// Sheet is a sheet read: its cells, the tone curve of the device, and what is to be said of it.
type Sheet struct {
	Number int // as printed on it; 0 where none is to be read
	Cells  []Reading
	Tone   Tone
	Notes  []string
}

// Limits of a cell; our own defaults.
const (
	inset      = 1.8  // mm from the edge of the box that is not looked at
	pitch      = 0.4  // mm between the places looked at
	emptyBelow = 2.2  // CIEDE2000 against the paper
	halfBelow  = 0.6  // share of the box that is inked
	overAbove  = 0.25 // share of the rim round the box that is inked
	shadowDark = 0.84 // of the paper's light round it
	unlikeOver = 32.0 // CIEDE2000 against the colour expected
	commonOf   = 30   // in a hundred of the inked places, those that lie nearest together in depth
	readSure   = 0.8  // CIEDE2000, standard deviation of an even cell of a plain picture
	spreadSure = 0.25 // more of it for each unit of a cell's spread
	patchyOver = 12.0 // standard deviation of lightness within a cell
	edgedUnder = 0.86 // of the brightest side's paper, the least bright side's
)

// Read reads the first n cells of a sheet on paper of the given colour.
// Expected colours, where not nil, tell cells that hold another ink.
func Read(p *picture.Picture, m mat.Reading, n int, paper colour.Linear, expected []*colour.Linear) ([]Reading, error) {
	s, err := ReadSheet(p, m, n, paper, expected)
	return s.Cells, err
}

// ReadSheet is Read, with what was found of the device and of the sheet as a whole.
func ReadSheet(p *picture.Picture, m mat.Reading, n int, paper colour.Linear, expected []*colour.Linear) (Sheet, error) {
	g := For(m.Layout)
	if n > g.Cells() {
		return Sheet{}, fmt.Errorf("read swatches: %d cells asked for, the sheet has %d", n, g.Cells())
	}
	eye := eye{p, m}
	rims := make([][]colour.Linear, n)
	white := make([]colour.Linear, n)
	for i := range n {
		rims[i] = eye.rim(g.Box(i))
		white[i] = brightHalf(rims[i])
	}
	s := Sheet{Number: eye.number(g), Cells: make([]Reading, n), Tone: eye.toneOf(paper)}
	light := fitLight(g, white)
	dark, bright := 0, 0
	for i := range n {
		var want *colour.Linear
		if i < len(expected) {
			want = expected[i]
		}
		r := eye.cell(g, i, rims[i], white[i], light, paper, want, s.Tone)
		if r.Trouble != Empty {
			dark++
		}
		if r.Trouble != Empty && eye.clipped(g.Box(i)) > clippedFrom {
			r.Trouble, r.Usable = Bright, false
			bright++
		}
		s.Cells[i] = r
	}
	if n > 0 && dark == 0 {
		return Sheet{}, &picture.Problem{What: "No cell of the sheet is filled.", Mend: "Fill the cells with their inks, let them dry, and take the picture again."}
	}
	s.confused(expected)
	s.say(bright)
	return s, nil
}

// say tells what holds for the whole sheet.
func (s *Sheet) say(bright int) {
	switch {
	case s.Tone.Known():
		s.Notes = append(s.Notes, fmt.Sprintf("The device has a tone curve of its own, found from the strip of greys and taken off; the greys then lie within %.1f of what they are.", s.Tone.Left))
	case s.Tone.Left > stripMost:
		s.Notes = append(s.Notes, fmt.Sprintf("The strip of greys was not printed as it was laid out (off by %.0f on the mean), so nothing is known of the device's tone curve: colours are trusted less.", s.Tone.Left))
	}
	if bright > 0 {
		s.Notes = append(s.Notes, "The paper is as bright as the picture can show: how much brighter it was is lost. Take the picture darker, or switch off what lightens it by itself.")
	}
}

// eye looks at places of the field in linear light.
type eye struct {
	p *picture.Picture
	m mat.Reading
}

// at is the mean light round a place in the field: over about 0.3 mm, so that
// grain does not count.
func (e eye) at(q shape.Point) colour.Linear {
	px := e.m.Pixel(q)
	r := max(1, int(0.15*e.m.PerMM))
	x0, y0 := int(px.X), int(px.Y)
	var s [3]float32
	n := float32(0)
	for y := max(0, y0-r); y <= min(e.p.H-1, y0+r); y++ {
		for x := max(0, x0-r); x <= min(e.p.W-1, x0+r); x++ {
			a, b, c := e.p.At(x, y)
			s[0], s[1], s[2] = s[0]+picture.Linear(a), s[1]+picture.Linear(b), s[2]+picture.Linear(c)
			n++
		}
	}
	if n == 0 {
		return colour.Linear{}
	}
	return colour.Linear{float64(s[0] / n), float64(s[1] / n), float64(s[2] / n)}
}

// rim is the paper above and beside a box; what is written stands below.
func (e eye) rim(b shape.Box) (out []colour.Linear) {
	const off = 1.0
	for x := b.Min.X; x <= b.Max.X; x += 2 * pitch {
		out = append(out, e.at(shape.Point{X: x, Y: b.Min.Y - off}))
	}
	for y := b.Min.Y; y <= b.Max.Y; y += 2 * pitch {
		out = append(out, e.at(shape.Point{X: b.Min.X - off, Y: y}), e.at(shape.Point{X: b.Max.X + off, Y: y}))
	}
	return out
}

func luma(c colour.Linear) float64 { return 0.2126*c[0] + 0.7152*c[1] + 0.0722*c[2] }

// brightHalf is the middle of the brighter half of some lights.
func brightHalf(cs []colour.Linear) colour.Linear {
	s := slices.Clone(cs)
	slices.SortFunc(s, func(a, b colour.Linear) int { return cmp.Compare(luma(b), luma(a)) })
	return mean(s[len(s)/10 : max(len(s)/10+1, len(s)/2)])
}

// commonest is the mean of those lights that lie nearest together in depth, between the
// paper's and a deep one's: the shortest stretch that holds a share of them (the half-sample
// mode of D. Bickel and R. Frühwirth, Computational Statistics and Data Analysis 50, 2006,
// taken once).
func commonest(in []colour.Linear, white, deep colour.Linear) colour.Linear {
	depth := func(c colour.Linear) (d float64) {
		for k := range c {
			d += (c[k] - white[k]) * (deep[k] - white[k])
		}
		return d
	}
	s := slices.Clone(in)
	slices.SortFunc(s, func(a, b colour.Linear) int { return cmp.Compare(depth(a), depth(b)) })
	k := max(4, len(s)*commonOf/100)
	best, at := math.Inf(1), 0
	for i := 0; i+k <= len(s); i++ {
		if d := depth(s[i+k-1]) - depth(s[i]); d < best {
			best, at = d, i
		}
	}
	return mean(s[at:min(len(s), at+k)])
}

// away is how far a light is from the paper's.
func away(c, white colour.Linear) float64 {
	var s float64
	for k := range c {
		s += (c[k] - white[k]) * (c[k] - white[k])
	}
	return s
}

func mean(cs []colour.Linear) (m colour.Linear) {
	for _, c := range cs {
		for i := range m {
			m[i] += c[i] / float64(len(cs))
		}
	}
	return m
}

// cell reads one cell.
func (e eye) cell(g Grid, i int, rim []colour.Linear, white colour.Linear, light func(shape.Point) colour.Linear, paper colour.Linear, want *colour.Linear, tone Tone) Reading {
	r := Reading{Cell: i}
	box := g.Box(i)
	smooth := light(box.Min.Add(box.Max).Scale(0.5))
	var in []colour.Linear
	for y := box.Min.Y + inset; y <= box.Max.Y-inset; y += pitch {
		for x := box.Min.X + inset; x <= box.Max.X-inset; x += pitch {
			in = append(in, e.at(shape.Point{X: x, Y: y}))
		}
	}
	// Blotches are bare paper showing through, and an uneven hand leaves darker places too: the
	// depth that most of the cell has is its ink's.
	slices.SortFunc(in, func(a, b colour.Linear) int { return cmp.Compare(away(b, white), away(a, white)) })
	ink := mean(in[len(in)*8/100 : len(in)*26/100])
	bare := 0
	for _, c := range in {
		if away(c, white) < 0.36*away(ink, white) {
			bare++
		}
	}
	if k := len(in) - bare; k > 8 {
		ink = commonest(in[:k], white, ink)
	}
	inked := func(c colour.Linear) bool {
		var dot, whole float64
		for k := range c {
			d := ink[k] - white[k]
			dot, whole = dot+(c[k]-white[k])*d, whole+d*d
		}
		return dot > whole/2
	}
	over := 0
	for _, c := range rim {
		if inked(c) {
			over++
		}
	}
	filled := 0
	for _, c := range in {
		if inked(c) {
			filled++
		}
	}
	ref := white
	spilled := float64(over) > overAbove*float64(len(rim))
	if spilled {
		ref = smooth
	}
	toned, paperSeen := tone.linear(ink), tone.linear(ref)
	for c := range r.Colour {
		r.Colour[c] = math.Min(1, paper[c]*toned[c]/math.Max(paperSeen[c], 1e-3))
	}
	var sum, square float64
	for _, c := range in {
		l := c.Lab().L
		sum, square = sum+l, square+l*l
	}
	k := float64(len(in))
	r.Spread = math.Sqrt(math.Max(0, square/k-sum*sum/k/k))
	r.Sure = 2 * math.Sqrt(readSure*readSure+tone.Left*tone.Left/4+r.Spread*r.Spread*spreadSure*spreadSure)
	switch diff := colour.Difference(r.Colour.Lab(), paper.Lab()); {
	case diff < emptyBelow:
		r.Trouble = Empty
		return r
	case float64(filled) < halfBelow*k:
		r.Trouble = Half
		return r
	case want != nil && colour.Difference(r.Colour.Lab(), want.Lab()) > unlikeOver:
		r.Trouble = Unlike
		return r
	case !spilled && e.edged(box):
		r.Trouble = Edge
		return r
	case r.Spread > patchyOver:
		r.Trouble = Patchy
		return r
	case luma(white) < shadowDark*luma(smooth) && !spilled:
		r.Trouble = Shadow
	case spilled:
		r.Trouble = Over
	}
	r.Usable = true
	return r
}

// edged reports whether the paper on one side of a box, or beside its top or its foot, is
// plainly darker than across from there: the edge of a shadow then lies across it.
func (e eye) edged(b shape.Box) bool {
	const off = 1.0
	// Of the lights beside a stretch of a side, one that spilled ink does not tell.
	beside := func(x, from, to float64) float64 {
		var ls []float64
		for t := from; t < to; t += 0.05 {
			ls = append(ls, luma(e.at(shape.Point{X: x, Y: b.Min.Y + t*b.H()})))
		}
		slices.Sort(ls)
		return ls[len(ls)*7/10]
	}
	left, right := b.Min.X-off, b.Max.X+off
	// What spilled on one side only is no shadow.
	across := func(from, to float64) float64 { return max(beside(left, from, to), beside(right, from, to)) }
	apart := func(a, b float64) bool { return min(a, b) < edgedUnder*max(a, b) }
	return apart(beside(left, 0.1, 0.95), beside(right, 0.1, 0.95)) || apart(across(0.02, 0.23), across(0.78, 0.99))
}
