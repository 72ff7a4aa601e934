package plan

import (
	"fmt"
	"math"

	"ochrestone/core/card"
	"ochrestone/core/shape"
	"ochrestone/core/work"
)

// Pattern is the plan of a pattern turned on a panel.
type Pattern struct {
	ID      string   `json:"id"`
	Strikes []Strike `json:"strikes" nullable:"false" doc:"in order"`
	Step    float64  `json:"step" doc:"turn of the panel between strikes, degrees"`
	Lost    float64  `json:"lost" doc:"share of the printed area that the trim takes, 0 to 1"`
	Off     float64  `json:"off" doc:"share of the printed area that misses the panel as printed"`
	Overlap float64  `json:"overlap" doc:"area that two strikes share, mm²"`
	MidX    float64  `json:"midX" doc:"middle of what is printed, mm in the image's frame"`
	MidY    float64  `json:"midY"`
	Clear   float64  `json:"clear" doc:"room the panel needs to turn in, across, mm"`
	Notes   []string `json:"notes" nullable:"false"`
	Problem string   `json:"problem,omitempty"`
}

// Strike is one print of a pattern as it comes to lie on the panel, seen with
// corner 1 at the top left.
type Strike struct {
	Number    int     `json:"number"`
	Colourway string  `json:"colourway"`
	Corner    int     `json:"corner" doc:"corner of the panel at the top left for it; 0 when the panel stands between corners"`
	X         float64 `json:"x" doc:"middle of the image to the right of the panel's, mm"`
	Y         float64 `json:"y" doc:"down, mm"`
	Turn      float64 `json:"turn" doc:"of the image, clockwise, degrees"`
	Lost      float64 `json:"lost" doc:"share of it that the trim takes, 0 to 1"`
}

// Patterns plans the patterns of a card.
func (b *builder) patterns() {
	b.plan.Patterns = make([]Pattern, 0, len(b.card.Patterns))
	for _, p := range b.card.Patterns {
		q, err := b.pattern(p)
		if err != nil {
			q.Problem = fmt.Sprintf("%s cannot be worked out: %v.", p.Name, err)
		}
		b.plan.Patterns = append(b.plan.Patterns, q)
	}
}

func (b *builder) pattern(p card.Pattern) (Pattern, error) {
	out := Pattern{ID: p.ID, Strikes: []Strike{}, Notes: []string{}, Step: 360 / float64(p.Turns), Clear: p.Side * math.Sqrt2}
	pm := b.motifOf(p.Motif)
	if pm == nil || pm.Problem != "" {
		out.Problem = "Its image cannot be worked out."
		return out, nil
	}
	// Only what is printed is turned; cut pieces of the image have no part in it.
	var prints []shape.Region
	for _, v := range pm.img.Shapes.Views {
		if v.Layer.Make != card.Cut {
			prints = append(prints, v.Outline)
		}
	}
	if len(prints) == 0 {
		out.Problem = "Its image has no layer that is stamped or stencilled."
		return out, nil
	}
	sil, err := shape.UnionAll(prints...)
	if err != nil {
		return out, fmt.Errorf("gather the prints: %w", err)
	}
	box := sil.Bounds()
	mid := box.Min.Add(box.Max).Scale(0.5)
	out.MidX, out.MidY = mid.X, mid.Y
	whole := sil.Area()
	panel := shape.Rect(-p.Side/2, -p.Side/2, p.Side, p.Side)
	trimmed := shape.Rect(-p.Side/2+p.Trim, -p.Side/2+p.Trim, p.Side-2*p.Trim, p.Side-2*p.Trim)
	dir := 1.0 // the panel turned clockwise carries its prints round anticlockwise under the stamp
	if p.Anti {
		dir = -1
	}
	var laid []shape.Region
	for k := range p.Turns {
		// The panel has been turned so far; what is struck on it now lies turned back.
		back := -dir*float64(k)*out.Step + float64(p.Start-1)*90
		at := shape.Point{X: p.X, Y: p.Y}
		s := Strike{Number: k + 1, Colourway: p.Colourways[k%len(p.Colourways)], Turn: math.Remainder(p.Turn+back, 360)}
		sin, cos := math.Sincos(back * math.Pi / 180)
		s.X, s.Y = at.X*cos-at.Y*sin, at.X*sin+at.Y*cos
		if quarter := math.Remainder(back, 90); math.Abs(quarter) < 1e-9 {
			s.Corner = 1 + ((int(math.Round(back/90))%4)+4)%4
		}
		g := sil.Turn(s.Turn, mid).Move(shape.Point{X: s.X, Y: s.Y}.Sub(mid))
		for _, cut := range []struct {
			by  shape.Region
			add *float64
		}{{trimmed, &s.Lost}, {panel, &out.Off}} {
			in, err := g.Intersect(cut.by)
			if err != nil {
				return out, fmt.Errorf("cut strike %d: %w", k+1, err)
			}
			share := 1 - in.Area()/whole
			if cut.add == &out.Off {
				share /= float64(p.Turns)
			}
			*cut.add += math.Max(0, share)
		}
		out.Lost += s.Lost / float64(p.Turns)
		for _, o := range laid {
			both, err := g.Intersect(o)
			if err != nil {
				return out, fmt.Errorf("compare strike %d: %w", k+1, err)
			}
			out.Overlap += both.Area()
		}
		laid = append(laid, g)
		out.Strikes = append(out.Strikes, s)
	}
	out.say(p, b)
	return out, nil
}

// trimShows is the share of a pattern whose loss is worth a word.
const trimShows = 0.01

func (q *Pattern) say(p card.Pattern, b *builder) {
	way := map[bool]string{true: "anticlockwise", false: "clockwise"}[p.Anti]
	q.Notes = append(q.Notes, fmt.Sprintf("Turn the panel %.4g° %s after each strike, always the same way, and count: %d strikes. It needs %s clear to turn in.", q.Step, way, p.Turns, b.o.format(q.Clear)))
	if q.Lost > trimShows {
		q.Notes = append(q.Notes, fmt.Sprintf("The trim of %s a side takes %.0f %% of what is printed, for good: move the image in, or print on a larger panel.", b.o.format(p.Trim), 100*q.Lost))
	}
	if q.Off > trimShows {
		q.Notes = append(q.Notes, fmt.Sprintf("%.0f %% misses the panel as it is printed: lay scrap beneath.", 100*q.Off))
	}
	if q.Overlap > 1 {
		q.Notes = append(q.Notes, fmt.Sprintf("Strikes overlap by %.0f mm² in all: go from the lightest ink to the deepest, and let each dry.", q.Overlap))
	}
}

func (b *builder) motifOf(id string) *Motif {
	for i := range b.plan.Motifs {
		if b.plan.Motifs[i].ID == id {
			return &b.plan.Motifs[i]
		}
	}
	return nil
}

// patternSteps adds the printing of the patterns: the count and the direction are
// kept by a step for each strike of each stamp.
func (b *builder) patternSteps(l *work.List) {
	for i, p := range b.card.Patterns {
		q := b.plan.Patterns[i]
		m, ok := b.card.Motif(p.Motif)
		if q.Problem != "" || !ok {
			continue
		}
		id := func(what string) string { return "pattern:" + p.ID + ":" + what }
		l.Add(phaseCut, work.Step{ID: id("cut"), Kind: work.CutStep, Title: "Cut the panel of " + p.Name,
			Detail: fmt.Sprintf("A square of %s. Number its corners 1 to 4 clockwise on the back, in pencil.", b.o.format(p.Side))})
		last := id("cut")
		way := map[bool]string{true: "anticlockwise", false: "clockwise"}[p.Anti]
		for _, layer := range m.Layers {
			if layer.Make == card.Cut {
				continue
			}
			for _, s := range q.Strikes {
				w, _ := m.Colourway(s.Colourway)
				f := w.Layers[layer.ID]
				if f.Ink == "" {
					continue
				}
				turn := "As it lies."
				if s.Number > 1 {
					turn = fmt.Sprintf("Turn the panel %.4g° %s first", q.Step, way)
					if s.Corner > 0 {
						turn += fmt.Sprintf(": corner %d to the top left", s.Corner)
					}
					turn += "."
				} else if s.Corner > 0 {
					turn = fmt.Sprintf("Corner %d to the top left.", s.Corner)
				}
				step := work.Step{ID: id(fmt.Sprintf("%s:%d", layer.ID, s.Number)), Kind: work.PrintStep,
					Title: fmt.Sprintf("%s: %s, strike %d of %d", p.Name, layer.Label, s.Number, p.Turns), Ink: f.Ink,
					Detail: fmt.Sprintf("%s %s%s. The stamp stays where it is.", turn, b.kit.InkName(f.Ink), strikes(f)), Motif: m.ID, Layer: layer.ID}
				l.Add(phaseInk, step, work.Need{Step: last, Why: whyTurned})
				last = step.ID
			}
		}
		if p.Trim > 0 {
			side := p.Side - 2*p.Trim
			l.Add(phaseInk, work.Step{ID: id("trim"), Kind: work.CutStep, Title: "Trim " + p.Name,
				Detail: fmt.Sprintf("%s off each side leaves %s × %s. Once it is dry; mind the blade, cut away from your hand.", b.o.format(p.Trim), b.o.format(side), b.o.format(side))}, work.Need{Step: last, Why: whyDry})
		}
	}
}

const whyTurned = "the panel is turned strike by strike, and the count is kept"
