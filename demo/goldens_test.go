package demo_test

import (
	"encoding/json"
	"flag"
	"fmt"
	"maps"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/trial"
	"ochrestone/demo"
)

// renew writes the goldens anew: go test ./demo -run Goldens -renew. Look at what
// changed, and say why in the commit.
var renew = flag.Bool("renew", false, "write the goldens anew")

// The plans of the demo's cards and of the trial cards are what they were.
func TestGoldens(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	type named struct {
		name string
		c    card.Card
		k    kit.Kit
	}
	all := []named{}
	for i, c := range demo.Cards(k) {
		all = append(all, named{[]string{"demo-moth", "demo-beetles", "demo-toadstools", "demo-lantern", "demo-frame", "demo-shells"}[i], c, k})
	}
	for _, n := range trial.Cards() {
		all = append(all, named{n.Name, n.Card, trial.Kit()})
	}
	for _, n := range all {
		file := filepath.Join("testdata", "goldens", n.name+".txt")
		got := digest(plan.Of(n.c, n.k, plan.Typeface(trial.Blocks{})))
		if *renew {
			require.NoError(t, os.WriteFile(file, []byte(got), 0o644))
			continue
		}
		want, err := os.ReadFile(file)
		require.NoError(t, err)
		assert.Equal(t, strings.Split(string(want), "\n"), strings.Split(got, "\n"), n.name)
	}
}

// digest writes a plan down in lines a person can compare.
func digest(p plan.Plan) string {
	var b strings.Builder
	say := func(f string, a ...any) { fmt.Fprintf(&b, f+"\n", a...) }
	for _, m := range p.Motifs {
		say("image %s: %.2f × %.2f %s", m.Name, m.W, m.H, m.Problem)
		for _, l := range m.Layers {
			say("  %s on %q: area %.2f shows %.2f share %.3f pieces %d; play %v %.3f rim %.2f outside %.2f", l.Label, l.Host, l.Area, l.Visible, l.Share, l.Pieces, l.Play.Judged, l.Play.Tight, l.Play.Rim, l.Play.Outside)
		}
		for _, c := range m.Touches {
			say("  touch %q %q %.1f", c.A, c.B, c.Length)
		}
		for _, w := range m.Colourways {
			say("  colourway %s: weakest %.1f height %.3f cards %d prints %d", w.Name, w.Weakest, w.Height, w.Card, w.Prints)
			for _, l := range w.Layers {
				say("    %s: %s dries %s wet %s L %.1f %s doubt %.1f z %.3f to %.3f %s %v", l.ID, l.Paper, l.Dry, l.Wet, l.L, l.Source, l.Doubt, l.Z0, l.Z1, l.Missing, l.Blends)
			}
			for _, q := range w.Pairs {
				say("    pair %q %q %.1f over %.1f", q.A, q.B, q.Diff, q.Length)
			}
		}
	}
	for _, s := range p.Front.Sheets {
		say("sheet %s %v %s at %.2f %.2f size %.2f × %.2f z %.3f to %.3f", s.ID, s.Panel, s.Colour, s.X, s.Y, s.W, s.H, s.Z0, s.Z1)
	}
	for _, t := range p.Build.Things {
		for _, d := range t.Drawn {
			if len(d.Films) == 0 {
				continue
			}
			area, shades := 0.0, map[string]bool{}
			for _, f := range d.Films {
				area += f.Region.Area()
				shades[f.Colour] = true
			}
			say("films %s %s: %d in %d colours over %.1f mm² on %.1f, looks %s", d.ID.Element, d.ID.Part, len(d.Films), len(shades), area, d.Local.Area(), d.Top)
		}
	}
	for _, t := range p.Front.Treated {
		say("treated %s %d: %s%s", t.ID, t.At, t.Say, t.Problem)
	}
	for _, l := range p.Front.Letters {
		say("letters %+v", l)
	}
	for _, u := range p.Front.Upward {
		say("up %v", u)
	}
	for _, e := range p.Front.Elements {
		say("element %s %s: %.2f × %.2f margins %.2f over %v z %.3f to %.3f", e.ID, e.Label, e.W, e.H, e.Margins, e.Over, e.Z0, e.Z1)
	}
	d := p.Depth
	say("depth %.3f base %.3f at %s weight %.2f post %v %s %.3f of %.3f in %s, %.3f × %.3f", d.Total, d.Base, d.At, d.Weight, d.Post.Fits, d.Post.Class, d.Post.Filled, d.Post.Limit, d.Post.Envelope, d.Post.NeedsW, d.Post.NeedsH)
	for _, q := range p.Patterns {
		say("pattern %s lost %.3f off %.3f overlap %.1f %s", q.ID, q.Lost, q.Off, q.Overlap, q.Problem)
		for _, s := range q.Strikes {
			say("  %+v", s)
		}
		for _, n := range q.Notes {
			say("  %s", n)
		}
	}
	for _, s := range p.Steps {
		say("step %d %s: %s | %s | %v | %g min", s.Number, s.Kind, s.Title, s.Detail, s.Cautions, s.Minutes)
	}
	for _, f := range p.Findings {
		say("note %s %s: %s | %s | %s | aside %q", f.Station, f.Severity, f.What, f.Why, f.Do, f.Aside)
		for _, n := range slices.Sorted(maps.Keys(f.Numbers)) {
			say("  %s %.2f", n, f.Numbers[n])
		}
		if m := f.Mend; m != nil {
			edits, err := json.Marshal(m.Edits)
			say("  mend %s: %s %v", m.Label, edits, err)
		}
	}
	return b.String()
}
