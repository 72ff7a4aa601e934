package build

import (
	"fmt"
	"math"
	"ochrestone/core/card"
	"ochrestone/core/shape"
)

// Pattern is an image printed again and again on a sheet that is turned, worked out.
type Pattern struct {
	ID      string   `json:"id" doc:"of its element"`
	At      int      `json:"at" doc:"which of the sheet's treatments it is, from 0"`
	Strikes []Strike `json:"strikes" nullable:"false" doc:"in order"`
	Step    float64  `json:"step" doc:"turn of the sheet between strikes, degrees"`
	Lost    float64  `json:"lost" doc:"share of the printed area that the trim takes, 0 to 1"`
	Off     float64  `json:"off" doc:"share of the printed area that misses the sheet as printed"`
	Overlap float64  `json:"overlap" doc:"area that two strikes share, mm²"`
	MidX    float64  `json:"midX" doc:"middle of what is printed, mm in the image's frame"`
	MidY    float64  `json:"midY"`
	Clear   float64  `json:"clear" doc:"room the sheet needs to turn in, across, mm"`
	Notes   []string `json:"notes" nullable:"false"`
	Problem string   `json:"problem,omitempty"`
}

// Strike is one print of a pattern as it comes to lie on the sheet, seen with
// corner 1 at the top left.
type Strike struct {
	Number    int     `json:"number"`
	Colourway string  `json:"colourway"`
	Corner    int     `json:"corner" doc:"corner of the sheet at the top left for it; 0 when the sheet stands between corners"`
	X         float64 `json:"x" doc:"middle of the image to the right of the sheet's, mm"`
	Y         float64 `json:"y" doc:"down, mm"`
	Turn      float64 `json:"turn" doc:"of the image, clockwise, degrees"`
	Lost      float64 `json:"lost" doc:"share of it that the trim takes, 0 to 1"`
}

// PatternOf works out a pattern turned on a sheet, the treatment with that number, printed with
// an image. sheet is the
// outline it has in the end, about its middle; cut is the rectangle it is printed as. What
// stands against it is said in Problem.
func PatternOf(e card.Element, at int, m Image, sheet shape.Region, cut shape.Box) Pattern {
	q, err := patternOf(e, at, m, sheet, cut)
	if err != nil {
		q.Problem = fmt.Sprintf("%s cannot be worked out: %v.", e.Name, err)
	}
	return q
}

func patternOf(e card.Element, at int, m Image, trimmed shape.Region, cut shape.Box) (Pattern, error) {
	p := e.Sheet.Treatments[at].Turned
	out := Pattern{ID: e.ID, At: at, Strikes: []Strike{}, Notes: []string{}, Step: 360 / float64(p.Turns), Clear: math.Hypot(cut.W(), cut.H())}
	if m.Problem != "" || len(m.Shapes.Views) == 0 {
		out.Problem = gone
		return out, nil
	}
	// Only what is printed is turned; cut pieces of the image have no part in it.
	var prints []shape.Region
	for _, v := range m.Shapes.Views {
		if v.Layer.Make != card.Cut {
			prints = append(prints, v.Outline)
		}
	}
	if len(prints) == 0 {
		out.Problem = unprinted
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
	panel := shape.Rect(cut.Min.X, cut.Min.Y, cut.W(), cut.H())
	dir := 1.0 // the panel turned clockwise carries its prints round anticlockwise under the stamp
	if p.Anti {
		dir = -1
	}
	var laid []shape.Region
	for k := range p.Turns {
		// The panel has been turned so far; what is struck on it now lies turned back.
		back := -dir*float64(k)*out.Step + float64(p.Start-1)*90
		first := shape.Point{X: p.X, Y: p.Y}
		s := Strike{Number: k + 1, Colourway: p.Colourways[k%len(p.Colourways)], Turn: math.Remainder(p.Turn+back, 360)}
		sin, cos := math.Sincos(back * math.Pi / 180)
		s.X, s.Y = first.X*cos-first.Y*sin, first.X*sin+first.Y*cos
		if quarter := math.Remainder(back, 90); math.Abs(quarter) < 1e-9 {
			s.Corner = 1 + ((int(math.Round(back/90))%4)+4)%4
		}
		g := sil.Turn(s.Turn, mid).Move(shape.Point{X: s.X, Y: s.Y}.Sub(mid))
		for _, cut := range []struct {
			by  shape.Region
			add *float64
		}{{trimmed, &s.Lost}, {panel, &out.Off}} {
			if cut.by.Covers(g) {
				continue
			}
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
			if !g.Overlaps(o) {
				continue
			}
			both, err := g.Intersect(o)
			if err != nil {
				return out, fmt.Errorf("compare strike %d: %w", k+1, err)
			}
			out.Overlap += both.Area()
		}
		laid = append(laid, g)
		out.Strikes = append(out.Strikes, s)
	}
	return out, nil
}

// trimShows is the share of a pattern whose loss is worth a word.
const trimShows = 0.01

// Say adds to a pattern what a person has to know of it; format writes lengths.
func (q *Pattern) Say(e card.Element, format func(mm float64) string) {
	if q.Problem != "" {
		return
	}
	if q.At >= len(e.Sheet.Treatments) || e.Sheet.Treatments[q.At].Turned == nil {
		return
	}
	p := e.Sheet.Treatments[q.At].Turned
	way := map[bool]string{true: "anticlockwise", false: "clockwise"}[p.Anti]
	q.Notes = append(q.Notes, fmt.Sprintf("Turn the sheet %.4g° %s after each strike, always the same way, and count: %d strikes. It needs %s clear to turn in.", q.Step, way, p.Turns, format(q.Clear)))
	if q.Lost > trimShows {
		q.Notes = append(q.Notes, fmt.Sprintf("The trim of %s a side takes %.0f %% of what is printed, for good: move the image in, or print on a larger sheet.", format(e.Sheet.Trim), 100*q.Lost))
	}
	if q.Off > trimShows {
		q.Notes = append(q.Notes, fmt.Sprintf("%.0f %% misses the sheet as it is printed: lay scrap beneath.", 100*q.Off))
	}
	if q.Overlap > 1 {
		q.Notes = append(q.Notes, fmt.Sprintf("Strikes overlap by %.0f mm² in all: go from the lightest ink to the deepest, and let each dry.", q.Overlap))
	}
}
